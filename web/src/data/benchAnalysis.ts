/** From the bench's document to the core's analysis: the one way the app measures and judges. */
import { analyze, type Analysis } from '@sinew/core/analyze';
import { markOnFrame, type EventName, type Marks } from '@sinew/core/events/events';
import { techniqueById } from '@sinew/core/technique/catalogue';
import { realFrameTimes } from '@sinew/core/track/time';
import { trackFromPlaced } from '@sinew/core/track/track';
import type { BenchDocument, StrikeDocument } from './benchDocument';

/** What does not change while the coach works: the film itself. */
export interface FilmFacts {
  /** The file's own presentation times, seconds. */
  readonly frameTimes: readonly number[];
  /** Pixels. */
  readonly height: number;
}

/** What the analysis asks of the student. */
export interface StudentFacts {
  readonly stance: 'orthodox' | 'southpaw';
  /** Metres and kilograms, where they are known. */
  readonly heightM: number | null;
  readonly massKg: number | null;
}

export function marksOf(strike: StrikeDocument, realTimes: readonly number[]): Marks {
  const entries = Object.entries(strike.marks).filter(([, mark]) => mark.frame < realTimes.length);
  return Object.fromEntries(
    entries.map(([name, mark]) => [
      name as EventName,
      markOnFrame(realTimes, mark.frame, mark.width),
    ]),
  );
}

export function analyzeOnBench(
  document: Omit<BenchDocument, 'strikes'>,
  strike: StrikeDocument,
  film: FilmFacts,
  student: StudentFacts,
): Analysis {
  const realTimes = realFrameTimes(film.frameTimes, document.captureRate);
  const placed = document.placed.filter((point) => point.frame < realTimes.length);
  return analyze({
    strike: {
      technique: techniqueById(strike.technique),
      side: strike.side,
      stance: student.stance,
    },
    body: { mass: student.massKg, height: student.heightM },
    track: trackFromPlaced(placed, realTimes, film.height),
    calibration: { view: document.view, scale: document.scale, target: document.target },
    marks: marksOf(strike, realTimes),
  });
}
