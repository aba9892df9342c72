import type { Verdict } from '@sinew/core/measure/chain/verdict';
import type { Link } from '@sinew/core/foundation/technique/techniques';

const WIDTH = 8;
const GAP = 4;
const HEIGHT = 26;

const PUNCH: readonly Link[] = ['feet', 'knees', 'pelvis', 'trunk', 'shoulder', 'elbow', 'fist'];
const KICK: readonly Link[] = ['feet', 'knees', 'pelvis', 'thigh', 'shank', 'foot'];

/**
 * What each link did, ground to striking end, each in its place: full drives, hollow is neutral, short and
 * low drags, a dash where the film does not tell.
 */
export function ChainBars({ links }: { links: Partial<Record<Link, Verdict>> }) {
  const chain = links.thigh || links.shank || links.foot ? KICK : PUNCH;
  const words = chain
    .filter((link) => links[link])
    .map((link) => `${link} ${links[link]}`)
    .join(', ');
  return (
    <svg
      width={chain.length * (WIDTH + GAP)}
      height={HEIGHT}
      role="img"
      aria-label={words || 'not measured'}
    >
      {chain.map((link, i) => (
        <Bar key={link} x={i * (WIDTH + GAP)} verdict={links[link]} />
      ))}
    </svg>
  );
}

function Bar({ x, verdict }: { x: number; verdict: Verdict | undefined }) {
  if (!verdict) {
    return <rect x={x} y={HEIGHT - 2} width={WIDTH} height={1.5} className="fill-rule" />;
  }
  if (verdict === 'drags') {
    return <rect x={x} y={HEIGHT - 10} width={WIDTH} height={10} className="fill-now" />;
  }
  return (
    <rect
      x={x + 0.75}
      y={0.75}
      width={WIDTH - 1.5}
      height={HEIGHT - 1.5}
      strokeWidth={1.5}
      className={`stroke-ink ${verdict === 'drives' ? 'fill-ink' : 'fill-none'}`}
    />
  );
}
