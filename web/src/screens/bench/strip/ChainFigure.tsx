import type { LinkVerdict, Verdict } from '@sinew/core/measure/chain/verdict';
import type { Link, Technique } from '@sinew/core/foundation/technique/techniques';
import { laneHeight, lanesOf } from './lanes';

const WIDTH = 64;

/** How far each joint stands from the left, in a body that stretches from the ground to its striking end. */
const ACROSS: Record<Link, number> = {
  feet: 24,
  knees: 33,
  pelvis: 28,
  trunk: 29,
  shoulder: 36,
  elbow: 50,
  fist: 43,
  thigh: 38,
  shank: 42,
  foot: 45,
};

export type Point = readonly [number, number];
const path = (points: readonly Point[]) => `M${points.map((point) => point.join(' ')).join(' L')}`;

/** The body beside the lanes, each joint at the height of its lane; a link drawn as its verdict. */
export function ChainFigure({
  technique,
  links,
}: {
  technique: Technique;
  links: Partial<Record<Link, LinkVerdict>>;
}) {
  const lanes = lanesOf(technique);
  const height = laneHeight(lanes);
  const joints = lanes.map(({ link }, i) => ({
    link,
    at: [ACROSS[link], (i + 0.5) * height] as const,
  }));
  const of = (link: Link) => joints.find((joint) => joint.link === link)?.at;
  const [hipX, hipY] = of('pelvis')!;
  const [, floor] = of('feet')!;
  // In a kick the chain runs through the leg; the rest of the body leans away beside it.
  const isKick = of('thigh') !== undefined;
  const chest: Point = of('shoulder') ?? of('trunk') ?? [hipX - 10, hipY - 1.5 * height];
  const base = floor + 6;
  const below = (i: number): Point => joints[i + 1]?.at ?? [ACROSS.feet + 8, base];
  return (
    <svg
      width={WIDTH}
      height={height * lanes.length}
      viewBox={`${isKick ? -14 : 0} 0 ${WIDTH} ${height * lanes.length}`}
      className="shrink-0"
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      <g className="stroke-shade" strokeWidth={8}>
        <path
          d={path([
            [hipX, hipY],
            [hipX - 13, (hipY + base) / 2 - 3],
            [hipX - 17, base],
          ])}
        />
        <path d={path([chest, [chest[0] - 19, chest[1] + 17], [chest[0] - 15, chest[1] - 4]])} />
        <path d={path([[hipX, hipY], chest])} strokeWidth={13} />
        {joints.map(({ link, at }, i) => (
          <path key={link} d={path([below(i), at])} />
        ))}
      </g>
      <circle cx={chest[0] - 8} cy={chest[1] - 17} r={8.5} className="fill-shade" />
      {joints.map(({ link, at }, i) => (
        <LinkLine key={link} verdict={links[link]?.verdict} d={path([below(i), at])} />
      ))}
    </svg>
  );
}

/** Full where the link drives, hollow where it is neutral, a thin broken line where it drags. */
export function LinkLine({
  verdict,
  d,
  width = 7,
}: {
  verdict: Verdict | undefined;
  d: string;
  width?: number;
}) {
  if (verdict === 'drives') return <path d={d} strokeWidth={width} className="stroke-ink" />;
  if (verdict === 'neutral') {
    return (
      <>
        <path d={d} strokeWidth={width} className="stroke-ink" />
        <path d={d} strokeWidth={0.63 * width} className="stroke-paper" />
      </>
    );
  }
  if (verdict === 'drags') {
    return <path d={d} strokeWidth={width / 2} className="stroke-now" strokeDasharray="3 5" />;
  }
  return null;
}
