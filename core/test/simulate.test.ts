import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { mendFor } from '../src/judge/cost/estimate';
import { bodyModel, isModelled } from '../src/judge/simulate/body';
import { Chain, type State } from '../src/judge/simulate/chain';
import { fit, timed, type Observed } from '../src/judge/simulate/fit';
import { activation, forceAt } from '../src/judge/simulate/muscle';
import { simulateStrike, standing, type Model } from '../src/judge/simulate/strike';
import { AS_IT_IS, changed, heldStill, worthOfLinks } from '../src/judge/simulate/whatIf';
import { TECHNIQUES, techniqueById } from '../src/foundation/technique/techniques';

const numbers = z.array(z.number());
const fixture = z
  .object({
    links: z.array(
      z.object({
        length: z.number(),
        mass: z.number(),
        centre: z.number(),
        inertia: z.number(),
      }),
    ),
    guard: numbers,
    torque: numbers,
    rise: z.number(),
    times: numbers,
    angles: z.array(numbers),
    rates: z.array(numbers),
  })
  .parse(
    JSON.parse(readFileSync(new URL('./fixtures/chain_motion.json', import.meta.url), 'utf8')),
  );

const links = fixture.links.map((link, i) => ({ ...link, name: String(i) }));
const chain = new Chain(links);
const DT = 0.001;

function run(
  state: State,
  until: number,
  torques: (time: number) => readonly number[],
  each?: (before: State, after: State, time: number) => void,
): State {
  let now = state;
  const steps = Math.round(until / DT);
  for (let i = 0; i < steps; i++) {
    const next = chain.step(now, i * DT, DT, (_, time) => torques(time));
    each?.(now, next, i * DT);
    now = next;
  }
  return now;
}
const driven = (time: number) =>
  fixture.torque.map((one) => one * (1 - Math.exp(-time / fixture.rise)));
const guard: State = { angles: fixture.guard, rates: [0, 0, 0, 0] };

describe('the chain', () => {
  // SciPy's DOP853 on equations made from Jacobians and Christoffel symbols (chain_motion.py).
  it('moves as the same bodies do in SciPy', () => {
    fixture.times.forEach((time, i) => {
      const state = run(guard, time, driven);
      state.angles.forEach((angle, k) => expect(angle).toBeCloseTo(fixture.angles[i]![k]!, 4));
      state.rates.forEach((rate, k) => expect(rate / fixture.rates[i]![k]!).toBeCloseTo(1, 3));
    });
  });

  it('gains as much energy as the joints put in', () => {
    let work = 0;
    const end = run(guard, 0.2, driven, (a, b, time) => {
      const [first, second] = [driven(time), driven(time + DT)];
      const bend = (s: State, i: number) => s.angles[i]! - (i === 0 ? 0 : s.angles[i - 1]!);
      first.forEach((torque, i) => {
        work += 0.5 * (torque + second[i]!) * (bend(b, i) - bend(a, i));
      });
    });
    expect(work / chain.energy(end)).toBeCloseTo(1, 3);
  });

  it('gains as much angular momentum about the pelvis as the floor gives it, and keeps it without', () => {
    const [until, { rise }] = [0.2, fixture];
    const end = run(guard, until, driven);
    // ∫ (1 − e^(−t/r)) dt = T − r (1 − e^(−T/r))
    const impulse = fixture.torque[0]! * (until - rise * (1 - Math.exp(-until / rise)));
    expect(chain.angularMomentum(end) / impulse).toBeCloseTo(1, 4);
    const alone = run(end, 0.1, () => [0, 0, 0, 0]);
    expect(chain.angularMomentum(alone) / chain.angularMomentum(end)).toBeCloseTo(1, 4);
    expect(chain.energy(alone) / chain.energy(end)).toBeCloseTo(1, 3);
  });

  it('has shares that add up to the end’s speed, and the mass of a rod at its tip', () => {
    const state = run(guard, 0.15, driven);
    const [vx] = chain.endVelocity(state);
    const sum = chain.shares(state, [1, 0]).reduce((a, b) => a + b, 0);
    expect(sum).toBeCloseTo(vx, 9);
    // A rod about its end has I = m l² / 3: across it, its tip weighs m / 3.
    const rod = new Chain([{ name: 'rod', length: 1, mass: 3, centre: 0.5, inertia: 3 / 12 }]);
    expect(rod.effectiveMass([0], [0, 1])).toBeCloseTo(1, 9);
  });
});

// Hill 1938: full pull standing, none at the greatest speed, and the hyperbola between.
it('muscle pulls less the faster it shortens, and holds more when it is stretched', () => {
  expect(forceAt(0)).toBe(1);
  expect(forceAt(1)).toBe(0);
  expect(forceAt(0.3)).toBeCloseTo((1 - 0.3) / (1 + 0.3 / 0.25), 12);
  expect(forceAt(-0.01)).toBeGreaterThan(1);
  expect(forceAt(-5)).toBeLessThan(1.4);
  expect(activation(0)).toBe(0);
  expect(activation(0.03)).toBeCloseTo(1 - Math.exp(-1), 12);
});

const person = { height: 1.76, mass: 70 };
const yaw = Math.PI / 4;
// A kick is met where its own hips have turned so far; where nobody kicked, where the leg is as good as straight.
const model = (id: string): Model => {
  const body = bodyModel(techniqueById(id), person, yaw);
  return id === 'round-kick' ? { ...body, meets: { at: 'reach', share: 0.95 } } : body;
};
const delayed = (id: string, delay: number): Model => ({
  ...model(id),
  joints: model(id).joints.map((joint, i) => ({ ...joint, onset: delay * Math.min(i, 2) })),
});

describe('a link held still', () => {
  const ordered = (id: string) => delayed(id, 0.045);

  it('a trunk that does not turn on its hips throws as one body with them', () => {
    const { links, joints, guard, ...rest } = ordered('cross');
    const [pelvis, trunk] = links;
    const merged: Model = {
      ...rest,
      links: [
        { ...trunk!, mass: pelvis!.mass + trunk!.mass, inertia: pelvis!.inertia + trunk!.inertia },
        ...links.slice(2),
      ],
      joints: joints.filter((_, i) => i !== 1),
      guard: guard.filter((_, i) => i !== 1),
      root: 1,
    };
    const [held, one] = [simulateStrike(heldStill(ordered('cross'), 1)), simulateStrike(merged)];
    expect(held.speed / one.speed).toBeCloseTo(1, 1);
    expect(held.contact / one.contact).toBeCloseTo(1, 2);
  });

  it.each(['cross', 'lead-hook', 'elbow-round'])('every link that drives a %s is missed', (id) => {
    const worth = worthOfLinks(ordered(id));
    for (const share of worth.slice(0, 3)) expect(share).toBeGreaterThan(0.02);
  });

  it('what does not arrive without a link has no share, nor has what is held anyway', () => {
    expect(worthOfLinks(ordered('cross')).at(-1)).toBeNull();
    expect(worthOfLinks(ordered('lead-hook')).at(-1)).toBeNull();
  });
});

// Putnam 1993 and common practice: from the ground outwards, each link after the one before.
describe('early to late, from the ground to the fist, at equal effort', () => {
  it.each(['cross', 'lead-hook', 'elbow-round', 'round-kick'])('a %s is faster so', (id) => {
    const [atOnce, ordered] = [simulateStrike(delayed(id, 0)), simulateStrike(delayed(id, 0.05))];
    expect(ordered.hasArrived && atOnce.hasArrived).toBe(true);
    expect(ordered.speed).toBeGreaterThan(1.03 * atOnce.speed);
  });

  it('the other way round is slower than all at once', () => {
    const backwards = delayed('cross', 0.05);
    const last = 2 * 0.05;
    const joints = backwards.joints.map((joint) => ({ ...joint, onset: last - joint.onset }));
    expect(simulateStrike({ ...backwards, joints }).speed).toBeLessThan(
      simulateStrike(delayed('cross', 0)).speed,
    );
  });

  it('stops being true when the links wait too long for each other', () => {
    for (const id of ['lead-hook', 'elbow-round']) {
      const best = Math.max(
        ...[0.04, 0.06, 0.08, 0.1].map((d) => simulateStrike(delayed(id, d)).speed),
      );
      const late = simulateStrike(delayed(id, 0.2)).speed;
      expect(late).toBeLessThan(simulateStrike(delayed(id, 0)).speed);
      expect(late).toBeLessThan(0.8 * best);
    }
  });

  // Trade estimate (common practice, no source): 30–40 % is lost; the model is held to 20–45 %.
  it('a stepping straight without the turn loses about a third of its momentum', () => {
    const observed = {
      speed: 3.5,
      contact: 0.255,
      pelvisTurn: 0.06,
      trunkTurn: 0.26,
      reach: 0.95,
      onsets: [0, 0.045, 0.085],
      drift: null,
      step: 0.8,
    };
    const fitted = fit(model('stepping-straight'), observed);
    expect(fitted.misfit).toBeLessThan(1);
    const whole = simulateStrike(mendFor(fitted.model, 'full-turn')(fitted.model)).momentum;
    const lost = 1 - fitted.simulated.momentum / whole;
    expect(lost).toBeGreaterThan(0.2);
    expect(lost).toBeLessThan(0.45);
  });
});

describe('a fit', () => {
  const observed: Observed = {
    speed: 5.6,
    contact: 0.255,
    pelvisTurn: 0.98,
    trunkTurn: 1.2,
    onsets: [0, 0.045, 0.085],
    reach: 0.95,
    drift: null,
    step: 0,
  };

  it('throws the strike that was measured', () => {
    const { simulated: result, misfit } = fit(model('cross'), observed);
    expect(misfit).toBeLessThan(1);
    expect(result.speed).toBeCloseTo(5.6, 0);
    expect(result.turned[0]).toBeCloseTo(0.98, 1);
  });

  it('finds again what another strike of the model was', () => {
    const source = timed(model('lead-hook'), { ...observed, trunkTurn: 0.9 });
    const made = simulateStrike(source);
    const again = fit(model('lead-hook'), {
      speed: made.speed,
      contact: made.contact,
      pelvisTurn: made.turned[0]!,
      trunkTurn: 0.9,
      onsets: observed.onsets,
      reach: null,
      drift: made.drift,
      step: 0,
    });
    expect(again.misfit).toBeLessThan(0.1);
    again.model.joints.forEach((joint, i) => {
      const expected = source.joints[i]!;
      if (expected.torque > 0) expect(joint.torque / expected.torque).toBeCloseTo(1, 0);
    });
  });

  it('says when it cannot follow', () => {
    expect(fit(model('cross'), { ...observed, speed: 25 }).misfit).toBeGreaterThan(2);
  });
});

describe('what if', () => {
  const fitted = timed(model('cross'), {
    speed: 5,
    contact: 0.25,
    pelvisTurn: 1,
    trunkTurn: 1.2,
    step: 0,
    onsets: [0, 0.045, 0.085],
    reach: 0.95,
    drift: null,
  });

  it('changes nothing when nothing is asked', () => {
    expect(simulateStrike(changed(fitted, AS_IT_IS))).toEqual(simulateStrike(fitted));
  });

  it('a foot that gives costs speed, a step adds its own, power adds', () => {
    const speed = (change: Partial<typeof AS_IT_IS>) =>
      simulateStrike(changed(fitted, { ...AS_IT_IS, ...change })).speed;
    const now = simulateStrike(fitted).speed;
    expect(speed({ give: 0.5 })).toBeLessThan(now);
    expect(speed({ step: 1 })).toBeCloseTo(now + 1, 1);
    expect(speed({ powers: [1.3, 1.3] })).toBeGreaterThan(now);
    expect(speed({ reach: 0.75 })).not.toBeCloseTo(now, 2);
    expect(speed({ flare: 0.3 })).not.toBeCloseTo(now, 2);
  });

  it('models what stays in one plane, and says so of the rest', () => {
    const not = TECHNIQUES.filter((one) => !isModelled(one)).map(({ id }) => id);
    expect(not).toContain('rear-uppercut');
    expect(not).toContain('elbow-drop');
    for (const technique of TECHNIQUES.filter(isModelled)) {
      expect(simulateStrike(bodyModel(technique, person, yaw)).hasArrived, technique.id).toBe(true);
    }
  });
});

describe('a hook whose target stands where it stood', () => {
  const hook = timed(bodyModel(techniqueById('rear-hook'), { height: 1.76, mass: 70 }, 0.7), {
    speed: 8,
    contact: 0.2,
    pelvisTurn: 0.8,
    trunkTurn: 1,
    onsets: [0, 0.045, 0.085],
    reach: null,
    drift: null,
    step: 0,
  });
  const as = simulateStrike(hook);

  it('meets it at the same instant and place where nothing is changed', () => {
    const again = simulateStrike(standing(hook, as));
    expect(again.contact).toBeCloseTo(as.contact, 4);
    expect(again.momentum).toBeCloseTo(as.momentum, 1);
    expect(again.end[0]).toBeCloseTo(as.end[0], 3);
  });

  it('meets it sooner, on the same plane, where its arm goes first', () => {
    const early = { ...hook, joints: hook.joints.map((joint) => ({ ...joint, onset: 0 })) };
    const met = simulateStrike({ ...early, meets: standing(hook, as).meets });
    const off = met.end.map((place, axis) => place - as.end[axis]!);
    expect(met.hasArrived).toBe(true);
    expect(met.contact).toBeLessThan(as.contact);
    expect(off[0]! * as.direction[0] + off[1]! * as.direction[1]).toBeCloseTo(0, 6);
  });
});
