/** An analysis as the command line prints it. */
import type { Analysis } from '@sinew/core/analysis/analyze';
import { PHASES } from '@sinew/core/measure/events/phases';
import { turnEvidence } from '@sinew/core/measure/events/turnEvidence';
import { isPresent } from '@sinew/core/foundation/reading/reading';
import type { Rules } from '@sinew/core/judge/fault/finding';

const NO_EVIDENCE = 'Nothing here tells when hips and trunk start; bands or two cameras would.';

export function printedOf(analysis: Analysis, { school }: Rules): object {
  const evidence = turnEvidence(analysis.events, analysis.readings['lead.half']);
  return {
    events: mapped(analysis.events, ({ time, sigma }) => ({ time, sigma })),
    phases: phasesOf(analysis),
    readings: {
      ...mapped(analysis.readings, (one) =>
        isPresent(one)
          ? { value: one.value, unit: one.unit, sigma: one.sigma, source: one.source }
          : { absent: one.absent },
      ),
      ...halfTimes(analysis),
      'evidence.turn': evidence === null ? { absent: NO_EVIDENCE } : { value: evidence },
    },
    links: mapped(analysis.links, ({ share, verdict }) => ({ share: share.value, verdict })),
    findings: analysis.findings
      .filter((finding) => finding.status !== 'clear')
      .map(({ fault, status, evidence, injury, judgedAs, cost }) => ({
        fault,
        status,
        evidence,
        injury,
        judgedAs,
        // Null for what was not found; of what was, the loss in N·s, or why it is not known.
        cost,
      })),
    school: mapped(school, ({ choice }) => choice),
    problems: analysis.problems,
  };
}

/** Half-way times are read against contact, and printed from the first frame on like all instants. */
function halfTimes({ readings, events: { contact } }: Analysis): object {
  return Object.fromEntries(
    (['turn.half.pelvis', 'turn.half.trunk'] as const).flatMap((id) => {
      const one = readings[id];
      if (!contact || !isPresent(one)) return [];
      const { unit, sigma, source } = one;
      return [[id, { value: contact.time - one.value, unit, sigma, source }]];
    }),
  );
}

function mapped<T, U>(all: Readonly<Partial<Record<string, T>>>, to: (one: T) => U): object {
  return Object.fromEntries(Object.entries(all).map(([key, one]) => [key, to(one!)]));
}

function phasesOf({ events }: Analysis): Record<string, { start: number; end: number }> {
  return Object.fromEntries(
    PHASES.flatMap(({ id, from, to }) => {
      const [start, end] = [events[from], events[to]];
      return start && end && end.time >= start.time
        ? [[id, { start: start.time, end: end.time }]]
        : [];
    }),
  );
}
