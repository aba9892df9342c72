/** Times of the judge: readings to findings, what faults cost, and one change of a what-if. */
import { analyze, costedFindings, judgeMeasured } from '@sinew/core/analysis/analyze';
import { EVENTS, markOnFrame } from '@sinew/core/measure/events/events';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { judgeSet } from '@sinew/core/judge/fault/set';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { fit } from '@sinew/core/judge/simulate/fit';
import { observe } from '@sinew/core/judge/simulate/observe';
import { simulateStrike } from '@sinew/core/judge/simulate/strike';
import { AS_IT_IS, changed } from '@sinew/core/judge/simulate/whatIf';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { knownTimes } from '@sinew/fighters/fighter/pose';
import { clean, FAULT_CHANGES } from '@sinew/fighters/fighter/recipe';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { time } from './time';

const recipe = clean('cross', FAULT_CHANGES['all-at-once']);
const track = knownTrack(recipe, { rate: 240, noise: 0.002, seed: 1 });
const times = knownTimes(recipe);
const marks = Object.fromEntries(
  EVENTS.map((name) => [
    name,
    markOnFrame(track.frameTimes, nearestFrame(track.frameTimes, times[name])),
  ]),
);
const technique = techniqueById('cross');
const body = { mass: 70, height: 1.76 };
const strike = { technique, side: 'right' } as const;
const analysis = analyze({ strike, track, marks, body });
const { events, readings } = analysis;
const seen = observe(technique, events, readings, body);
if (isAbsent(seen)) throw new Error(seen.absent);
const fitted = fit(seen.model, seen.observed);

time('every leak judged again, nothing measured', 50, () =>
  judgeMeasured(analysis, strike, USUAL_RULES),
);
time('a set of ten, readings known', 20, () =>
  judgeSet(
    technique,
    Array.from({ length: 10 }, () => analysis),
    USUAL_RULES,
  ),
);
time('the chain model fitted to a strike', 5, () => fit(seen.model, seen.observed));
time('what every leak of it costs', 5, () =>
  costedFindings(analysis, analysis.findings, { strike, body }, USUAL_RULES),
);
let delay = 0;
time('one change of a what-if', 50, () => {
  delay = (delay + 0.005) % 0.1;
  return simulateStrike(changed(fitted.model, { ...AS_IT_IS, delays: [0, delay, delay, delay] }));
});
