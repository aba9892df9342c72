/**
 * From readings to findings. A leak is *found* only when its reading is beyond the limit by more
 * than the reading's own uncertainty (95 %), *clear* only when it is on the right side by as much;
 * in between, or without a reading, the answer is "can't tell", with what would settle it.
 */
import { isAbsent, halfWidth, type Measured, type Reading } from '../reading/reading';
import { quantity, say, sayOrder } from '../reading/say';
import type { Readings, MeasureId } from '../measures/catalogue';
import { CHAIN, type Technique } from '../technique/catalogue';
import { FAULTS, type Fault, type Limit } from './catalogue';

export type Outcome = 'found' | 'clear' | 'cant-tell';

export interface Finding {
  readonly fault: string;
  readonly name: string;
  readonly status: Outcome;
  /** One sentence to the coach. */
  readonly evidence: string;
  readonly injury: boolean;
  /** The limits that judged it and what they were held against, kept with the finding. */
  readonly judgedBy: readonly { readonly limit: Limit; readonly measured: Measured }[];
  /** The frame that shows it, when there is one. */
  readonly frame: number | null;
}

/**
 * Judge every leak the technique can have.
 *
 * @returns found first (injury before power, then from the ground up), then can't tell, then clear
 */
export function judge(technique: Technique, readings: Readings): Finding[] {
  const order: Record<Outcome, number> = { found: 0, 'cant-tell': 1, clear: 2 };
  return FAULTS.filter((fault) => fault.techniques.includes(technique.id))
    .map((fault) => ({ fault, finding: judgeFault(fault, readings) }))
    .sort(
      (a, b) =>
        order[a.finding.status] - order[b.finding.status] ||
        Number(b.fault.injury) - Number(a.fault.injury) ||
        CHAIN.indexOf(a.fault.link) - CHAIN.indexOf(b.fault.link),
    )
    .map(({ finding }) => finding);
}

export function judgeFault(fault: Fault, readings: Readings): Finding {
  const heard = fault.limits.filter(
    (limit) => !limit.ifShown || !isAbsent(readings[limit.reading]),
  );
  const outcomes = heard.map((limit) => holdAgainst(limit, readings[limit.reading]));
  const status = outcomes.includes('clear')
    ? 'clear'
    : outcomes.includes('cant-tell')
      ? 'cant-tell'
      : 'found';
  const first = readings[fault.limits[0]!.reading];
  const doubtful = heard[outcomes.indexOf('cant-tell')];
  return {
    fault: fault.id,
    name: fault.name,
    status,
    evidence:
      status === 'cant-tell'
        ? whyNot(doubtful!, readings[doubtful!.reading])
        : inWords(status === 'found' ? fault.evidence : fault.clear, fault, readings),
    injury: fault.injury,
    judgedBy: heard.map((limit) => ({ limit, measured: readings[limit.reading] })),
    frame: isAbsent(first) ? null : (first.frames[first.frames.length - 1] ?? null),
  };
}

function holdAgainst(limit: Limit, measured: Measured): Outcome {
  if (isAbsent(measured)) return 'cant-tell';
  const beyond = distanceBeyond(limit, measured);
  const spread = halfWidth(measured);
  if (beyond - spread > 0) return 'found';
  return beyond + spread <= limit.slack ? 'clear' : 'cant-tell';
}

/** How far the reading lies on the leak's side of its limit; negative on the right side. */
function distanceBeyond({ is, value }: Limit, measured: Reading): number {
  if (is === 'below') return value - measured.value;
  return (is === 'outside' ? Math.abs(measured.value) : measured.value) - value;
}

function inWords(template: string, fault: Fault, readings: Readings): string {
  const limit = fault.limits[0]!;
  return template.replace(/\{([\w.-]+)(:order)?\}/g, (_, id: string, order?: string) => {
    const measured = readings[(id === 'limit' ? limit.reading : id) as MeasureId];
    if (isAbsent(measured)) return '(not measured)';
    if (id === 'limit') return quantity(limit.value, measured.unit);
    return order ? sayOrder(measured) : say(measured);
  });
}

const FRAME_RATES = [60, 120, 240, 480, 960];

function whyNot(limit: Limit, measured: Measured): string {
  if (isAbsent(measured)) return measured.absent;
  const close = `${say(measured)}, and the limit is ${quantity(limit.value, measured.unit)}: too close to call.`;
  if (measured.unit === 's' && measured.source !== 'eye') {
    return `${close} Marking the instants by eye would settle it.`;
  }
  if (measured.unit !== 's') {
    return `${close} More strikes, or points placed on more frames, would settle it.`;
  }
  const distance = Math.abs(distanceBeyond(limit, measured) - limit.slack / 2) + limit.slack / 2;
  const rate = rateFor(measured, distance);
  return rate === null
    ? `${close} More strikes would settle it.`
    : `${say(measured)}, and the limit is ${quantity(limit.value, measured.unit)}: can’t tell at this frame rate. Film at ${rate} frames a second.`;
}

/**
 * The lowest usual frame rate at which a difference of two one-frame events is known to within
 * `distance`: 1.96 · √2 · Δt/√12 < distance. Null when none is, or the reading already is that good.
 */
function rateFor(measured: Reading, distance: number): number | null {
  const needed = (halfWidth({ sigma: 1 }) * Math.SQRT2) / (Math.sqrt(12) * distance);
  const presentRate = Math.SQRT2 / (Math.sqrt(12) * measured.sigma);
  return FRAME_RATES.find((rate) => rate > needed && rate > presentRate * 1.01) ?? null;
}
