import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { evidenceOf } from '@sinew/core/measure/measures/evidence';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { say } from '@/manner/manner';
import { strikeOf, useBench } from '../document/benchStore';
import { Tag } from './OverlayShapes';
import type { ShownPoint } from './pointsOnPicture';
import { useAnalysis } from '../document/useAnalysis';

/** What a finding was measured by, drawn on the frame that shows it: an angle, a line, a way. */
export function EvidenceShapes({
  points,
  wayOf,
  unit,
}: {
  points: readonly ShownPoint[];
  /** Where a point was, frame by frame, between two times. */
  wayOf: (landmark: Landmark, from: number, to: number) => readonly PixelPoint[];
  unit: number;
}) {
  const id = useBench((state) => state.evidence);
  const strike = useBench(strikeOf);
  const student = useBench((state) => state.student);
  const analysis = useAnalysis();
  if (!id || !strike || !analysis) return null;
  const technique = techniqueById(strike.technique);
  const evidence = evidenceOf(id, { technique, side: strike.side, stance: student.stance });
  const reading = id in analysis.readings ? analysis.readings[id as never] : null;
  if (!evidence || 'span' in evidence) return null;
  const at = (landmark: Landmark) => points.find((point) => point.landmark === landmark);
  const label = reading && !isAbsent(reading) ? say(reading) : '';
  if ('angle' in evidence) {
    const [a, b, c] = evidence.angle.map(at);
    if (!a || !b || !c) return null;
    return (
      <Stroke unit={unit} points={[a, b, c]}>
        <Tag at={b} unit={unit}>
          {label}
        </Tag>
      </Stroke>
    );
  }
  if ('lines' in evidence) {
    const lines = evidence.lines.flatMap(([a, b]) => {
      const [from, to] = [at(a), at(b)];
      return from && to ? [[from, to]] : [];
    });
    return lines.map((line, i) => (
      <Stroke key={i} unit={unit} points={line}>
        {i === 0 && (
          <Tag at={line[1]!} unit={unit}>
            {label}
          </Tag>
        )}
      </Stroke>
    ));
  }
  const [from, to] = [analysis.events[evidence.from], analysis.events[evidence.to]];
  if (!from || !to) return null;
  const way = wayOf(evidence.way, from.time, to.time);
  if (way.length < 2) return null;
  return (
    <Stroke unit={unit} points={way}>
      <Tag at={way[way.length - 1]!} unit={unit}>
        {label}
      </Tag>
    </Stroke>
  );
}

/** The one colour of what is looked at now, on a dark edge, so that it stands out of any film. */
function Stroke({
  points,
  unit,
  children,
}: {
  points: readonly PixelPoint[];
  unit: number;
  children?: React.ReactNode;
}) {
  const d = points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('');
  return (
    <g pointerEvents="none" fill="none" strokeLinecap="round" strokeLinejoin="round">
      <path d={d} stroke="#15130f" strokeOpacity={0.7} strokeWidth={7 * unit} />
      <path d={d} stroke="#fdfaf3" strokeWidth={4.5 * unit} />
      <path d={d} stroke="#b92d17" strokeWidth={3 * unit} />
      {children}
    </g>
  );
}
