import { describe, expect, it } from 'vitest';
import { clean } from '@sinew/fighters/fighter/recipe';
import { drillById } from '../src/foundation/drill/drills';
import { CATALOGUE, cueOf, FAULTS, faultById } from '../src/judge/fault/faults';
import type { Cost } from '../src/judge/fault/cost';
import type { Audit } from '../src/judge/eye/eyeChecks';
import { judge, judgeFault } from '../src/judge/fault/judge';
import { USUAL_RULES, type Finding } from '../src/judge/fault/finding';
import { ranked } from '../src/judge/fault/rank';
import { catalogueSchema, isOfReading } from '../src/judge/fault/schema';
import { changesBetween } from '../src/judge/fault/set';
import { MEASURE_IDS, type Readings } from '../src/measure/measures/allMeasures';
import { absent, type Measured } from '../src/foundation/reading/reading';
import { inWords, NO_SCHOOL, resolve, type SchoolLayers } from '../src/judge/school/resolve';
import { techniqueById } from '../src/foundation/technique/techniques';
import { edited, NO_EDITS } from '../src/judge/library/edits';
import { judgeKnown, undecided } from './fixtures';

const JUDGED = { rate: 240, noise: 0.002 };

it('decides every leak of a clean strike at 240 frames a second but what asks for an eye', () => {
  for (const technique of ['jab', 'cross', 'lead-hook'] as const) {
    const open = undecided(judgeKnown(clean(technique), JUDGED));
    expect(open.filter((one) => one !== 'hook-scoop')).toEqual(['wrong-knuckles']);
  }
});

// Common practice, no source: a lead of about 30 ms needs 100 frames a second or more.
describe('a lead of 30 ms', () => {
  const recipe = clean('cross', { hipsToTrunk: 0.03 });

  it('cannot be told from 20 ms at 30 frames a second, and the coach is told what would do', () => {
    const { readings } = judgeKnown(recipe, { rate: 30 });
    const halfWay = absent('not marked');
    const finding = judged('all-at-once', { ...readings, 'lead.half': halfWay });
    expect(finding.status).toBe('cant-tell');
    expect(finding.evidence).toMatch(/can’t tell at this frame rate\. Film at \d+ frames a second/);
  });

  it('is clear at 240', () => {
    expect(undecided(judgeKnown(recipe, { rate: 240 }))).not.toContain('all-at-once');
  });
});

const readings = (given: Partial<Record<(typeof MEASURE_IDS)[number], Measured>>): Readings =>
  ({
    ...Object.fromEntries(MEASURE_IDS.map((id) => [id, absent('not given')])),
    ...given,
  }) as Readings;
const seconds = (value: number, sigma: number): Measured => ({
  value,
  unit: 's',
  sigma,
  source: 'eye',
  frames: [10, 12],
});
const cross = techniqueById('cross');
const judged = (id: string, given: Readings, rules = USUAL_RULES) =>
  judgeFault(faultById(id)!, cross, given, rules)!;

describe('the three answers', () => {
  it('found only beyond the limit by more than the uncertainty', () => {
    const at = (value: number) =>
      judged('all-at-once', readings({ 'lead.hipsTrunk': seconds(value, 0.005) })).status;
    expect(at(0.0101)).toBe('found');
    expect(at(0.0103)).toBe('cant-tell');
    expect(at(0.0297)).toBe('cant-tell');
    expect(at(0.0299)).toBe('clear');
  });

  it('a second witness that is not shown or unsure is not waited for; one that clears is heard', () => {
    const early = { 'lead.hipsTrunk': seconds(0, 0.001) };
    const growth = (value: number): Measured => ({ ...seconds(value, 0.01), unit: 'rad' });
    const status = (given: Readings) => judged('all-at-once', given).status;
    expect(status(readings(early))).toBe('found');
    expect(status(readings({ ...early, 'separation.growth': growth(0.3) }))).toBe('clear');
    expect(status(readings({ ...early, 'separation.growth': growth(0.09) }))).toBe('found');
    expect(status(readings({ ...early, 'separation.growth': growth(0.02) }))).toBe('found');
  });

  it('half-way times stand in where the starts cannot tell, and only there', () => {
    const says = (start: Measured, halfWay: Measured) =>
      judged('all-at-once', readings({ 'lead.hipsTrunk': start, 'lead.half': halfWay }));
    const [unsure, none] = [seconds(0.02, 0.02), absent('not given')];
    expect(says(unsure, seconds(0.06, 0.01)).status).toBe('clear');
    expect(says(none, seconds(0.06, 0.01)).status).toBe('clear');
    const found = says(none, seconds(-0.01, 0.005));
    expect(found).toMatchObject({ status: 'found', way: 'turned-half-way' });
    expect(found.evidence).toMatch(
      /^The trunk is half-way through its turn 10 ± \d+ ms before the hips/,
    );
    expect(says(seconds(0, 0.001), seconds(0.06, 0.01)).status).toBe('found');
    expect(says(unsure, none)).toMatchObject({ status: 'cant-tell', way: 'turned' });
    expect(says(none, seconds(0.01, 0.02)).open?.settle).toBe(
      'The turn marked in more strikes would settle it.',
    );
  });

  it('the part that one picture shows is enough to find a leak, and never to clear it', () => {
    const metres = (value: number): Measured => ({ ...seconds(value, 0.01), unit: 'm' });
    const says = (whole: Measured, part: Measured) =>
      judged('head-whip', readings({ head: whole, 'head.seen': part }));
    const none = absent('A view from the side cannot show it.');
    const found = says(none, metres(0.14));
    expect(found.status).toBe('found');
    expect(found.evidence).toMatch(/^The head goes at least 14 ± 2 cm off its place/);
    expect(says(none, metres(0.11)).evidence).toBe('A view from the side cannot show it.');
    expect(says(none, metres(0.01)).status).toBe('cant-tell');
    expect(says(metres(0.01), metres(0.14)).status).toBe('clear');
  });

  it('half-way times decide nothing against what the starts read, unsure as they are', () => {
    const says = (start: number, halfWay: number) =>
      judged(
        'all-at-once',
        readings({
          'lead.hipsTrunk': seconds(start, 0.008),
          'lead.half': seconds(halfWay, 0.002),
        }),
      );
    // A trunk that turns quicker than its hips catches up by half-way, though it started late.
    expect(says(0.029, 0.012)).toMatchObject({ status: 'cant-tell', way: 'turned' });
    expect(says(0.01, 0.04)).toMatchObject({ status: 'cant-tell', way: 'turned' });
    expect(says(0.012, 0)).toMatchObject({ status: 'found', way: 'turned-half-way' });
    expect(says(0.028, 0.04)).toMatchObject({ status: 'clear', way: 'turned-half-way' });
  });

  it('half-way times are no surer of the starts than bodies differ', () => {
    const says = (halfWay: number) =>
      judged(
        'all-at-once',
        readings({ 'lead.hipsTrunk': absent('not given'), 'lead.half': seconds(halfWay, 0.002) }),
      );
    expect(says(0.006)).toMatchObject({ status: 'found' });
    expect(says(0.034)).toMatchObject({ status: 'clear' });
    for (const [halfWay, likely] of [
      [0.009, 'there'],
      [0.017, null],
      [0.023, null],
      [0.03, 'not-there'],
    ] as const) {
      expect(says(halfWay), `${halfWay} s`).toMatchObject({
        status: 'cant-tell',
        way: 'turned-half-way',
        open: { likely },
      });
    }
  });

  it('says which way it leans where it is right in four of five', () => {
    const leans = (lead: number) =>
      judged('all-at-once', readings({ 'lead.hipsTrunk': seconds(lead, 0.01) })).open?.likely;
    expect([leans(0.01), leans(0.02), leans(0.03)]).toEqual(['there', null, 'not-there']);
    expect(judged('all-at-once', readings({})).open?.likely).toBeNull();
  });

  it('says what is missing when there is no reading', () => {
    expect(judged('all-at-once', readings({}))).toMatchObject({
      status: 'cant-tell',
      evidence: 'not given',
      frame: null,
    });
  });

  it('keeps the limit and the reading that judged it', () => {
    const given = seconds(0, 0.001);
    const finding = judged('all-at-once', readings({ 'lead.hipsTrunk': given }));
    const limit = faultById('all-at-once')!.cases[0]!.limits[0];
    expect(finding.judgedBy).toEqual([{ limit, measured: given }]);
    expect(finding.evidence).toBe(
      'The trunk starts within 2 ms of the hips. A stretch across the body needs 20 ms or more.',
    );
    expect(finding.frame).toBe(12);
  });

  it('a leak of several ways is clear only when every way is', () => {
    const bend = (value: number): Measured => ({ ...seconds(value, 0.01), unit: 'rad' });
    const fine = { 'wrist.flex': bend(0.05) };
    expect(judged('wrist-bent', readings(fine)).status).toBe('cant-tell');
    expect(judged('wrist-bent', readings({ ...fine, 'wrist.side': bend(0) })).status).toBe('clear');
    const broken = judged('wrist-bent', readings({ ...fine, 'wrist.side': bend(-0.4) }));
    expect(broken).toMatchObject({ status: 'found', injury: true });
    expect(broken.evidence).toMatch(/bent −23 ± 1° sideways/);
  });

  it('what only an eye can tell waits for the eye', () => {
    const status = (says?: 'neutral' | 'drags') =>
      judged('wrong-knuckles', readings({}), {
        ...USUAL_RULES,
        audit: says ? { knuckles: says } : {},
      }).status;
    expect([status(), status('neutral'), status('drags')]).toEqual(['cant-tell', 'clear', 'found']);
  });

  it('what nothing can tell is found or clear by the coach’s word, and said to be by eye', () => {
    const by = (says: 'drives' | 'drags', given = readings({})) =>
      judged('all-at-once', given, { ...USUAL_RULES, audit: { 'leak:all-at-once': says } });
    expect(by('drags')).toMatchObject({
      status: 'found',
      evidence: 'By eye: hips and trunk leave together.',
      judgedBy: [{ measured: null }],
    });
    expect(by('drives').status).toBe('clear');
    // What was measured goes before it.
    const clean = readings({ 'lead.hipsTrunk': seconds(0.05, 0.002) });
    expect(by('drags', clean)).toMatchObject({ status: 'clear' });
    expect(by('drags', clean).evidence).not.toContain('eye');
    const told = judged('all-at-once', readings({}), {
      ...USUAL_RULES,
      audit: { 'leak:jammed': 'drags' },
    });
    expect(told.status).toBe('cant-tell');
  });

  it('a part that drags by eye decides its leak where nothing else can; neutral decides nothing', () => {
    const by = (audit: Audit, given = readings({})) =>
      judged('knee-gives', given, { ...USUAL_RULES, audit });
    expect(by({}).status).toBe('cant-tell');
    expect(by({ 'front-knee': 'drags' })).toMatchObject({
      status: 'found',
      judgedBy: [{ measured: null }],
    });
    expect(by({ 'front-knee': 'drives' }).status).toBe('clear');
    expect(by({ 'front-knee': 'neutral' }).status).toBe('cant-tell');
    // The word on the leak itself goes before that on a part, and a measurement before both.
    expect(by({ 'front-knee': 'drags', 'leak:knee-gives': 'drives' }).status).toBe('clear');
    // A lead hand's strike may turn on that knee.
    const hook = judge(techniqueById('lead-hook'), readings({}), {
      ...USUAL_RULES,
      audit: { 'front-knee': 'drags' },
    });
    expect(hook.find(({ fault }) => fault === 'knee-gives')?.status).toBe('cant-tell');
  });

  it('a wrist that the coach saw break can hurt, and is not waited for where he said nothing', () => {
    const bend = (value: number): Measured => ({ ...seconds(value, 0.01), unit: 'rad' });
    const straight = readings({ 'wrist.flex': bend(0.05), 'wrist.side': bend(0) });
    expect(judged('wrist-bent', straight).status).toBe('clear');
    const seen = judged('wrist-bent', straight, { ...USUAL_RULES, audit: { wrists: 'drags' } });
    expect(seen).toMatchObject({ status: 'found', injury: true, way: 'eye' });
  });

  it('range settles form: a hook thrown long is not too wide, a short straight not jammed', () => {
    const wide = readings({ 'elbow.contact': { ...seconds(2.4, 0.01), unit: 'rad' } });
    const short = readings({ reach: { ...seconds(0.7, 0.01), unit: 'ratio' } });
    const at = (range: 'close' | 'middle' | 'long' | null) => ({
      ...USUAL_RULES,
      school: resolve({ ...NO_SCHOOL, range }),
    });
    const hook = (range: Parameters<typeof at>[0]) =>
      judgeFault(faultById('hook-wide')!, techniqueById('lead-hook'), wide, at(range));
    expect(hook('long')).toBeNull();
    expect(hook('close')).toMatchObject({ status: 'found', judgedAs: ['close range'] });
    expect(hook(null)!.evidence).toContain('was it thrown long, say so');
    expect(judgeFault(faultById('jammed')!, cross, short, at('close'))).toBeNull();
    expect(judgeFault(faultById('jammed')!, cross, short, at('middle'))!.status).toBe('found');
  });

  it('a way of a leak has its own words to the student, and a gym’s words go before all', () => {
    const fault = faultById('hook-foot')!;
    expect(cueOf(fault, 'planted')).toBe('Grip the floor.');
    expect(cueOf(fault, 'pivoting')).toBe('Turn the heel out.');
    expect(cueOf(fault, 'usual')).toBe(fault.cue);
    const gym = edited({ ...NO_EDITS, faults: { 'hook-foot': { cue: 'Foot first.' } } });
    expect(cueOf(faultById('hook-foot', gym)!, 'planted')).toBe('Foot first.');
  });
});

describe('the order', () => {
  const given = readings({
    'lead.hipsTrunk': seconds(0, 0.001),
    recoil: { ...seconds(1.5, 0.01), unit: 'ratio' },
    'wrist.flex': { ...seconds(0.5, 0.01), unit: 'rad' },
    'wrist.side': { ...seconds(0, 0.01), unit: 'rad' },
    'stance.level': { ...seconds(0.2, 0.01), unit: 'rad' },
  });
  const found = (rules = USUAL_RULES) =>
    ranked(judge(cross, given, rules), rules)
      .filter(({ status }) => status === 'found')
      .map(({ fault }) => fault);
  const topDown = { ...NO_SCHOOL, gym: { readingOrder: 'top-down' } };

  it('injury first, then from the ground up, or from the shoulders down', () => {
    expect(found()).toEqual(['wrist-bent', 'hips-tilted', 'all-at-once', 'slow-home']);
    expect(found({ ...USUAL_RULES, school: resolve(topDown) })).toEqual([
      ...['wrist-bent', 'slow-home', 'all-at-once', 'hips-tilted'],
    ]);
  });

  it('by cost where costs can be told apart, else as the body is read', () => {
    const cost = (lost: number, give: number): Cost => ({
      lost,
      low: lost - give,
      high: lost + give,
      share: 0.1,
      shareLow: 0,
      shareHigh: 0.2,
    });
    const order = (costs: Record<string, Cost>) =>
      ranked(
        judge(cross, given).map((one) => ({ ...one, cost: costs[one.fault] ?? null })),
        USUAL_RULES,
      )
        .slice(0, 4)
        .map(({ fault }) => fault);
    expect(order({ 'all-at-once': cost(1, 0.1), 'slow-home': cost(2, 0.1) })).toEqual([
      ...['wrist-bent', 'slow-home', 'all-at-once', 'hips-tilted'],
    ]);
    // Ranges of nine tenths of ±1 N·s each: 0.5 between them is likelier than not, not four in five.
    expect(order({ 'all-at-once': cost(1, 1), 'slow-home': cost(1.5, 1) })).toEqual([
      ...['wrist-bent', 'all-at-once', 'slow-home', 'hips-tilted'],
    ]);
  });
});

describe('the school', () => {
  const through = { ...seconds(0.01, 0.001), unit: 'm' } as Measured;
  const given = readings({ 'phase.follow-through': seconds(0.1, 0.005), through });
  const of = (layers: Partial<SchoolLayers>) =>
    judge(cross, given, { ...USUAL_RULES, school: resolve({ ...NO_SCHOOL, ...layers }) });
  const named = (findings: readonly Finding[]) =>
    findings.filter(({ status }) => status === 'found').map(({ fault }) => fault);

  it('decides what is a leak, and each finding says by which choice it was judged', () => {
    expect(named(of({}))).toEqual(['push']);
    expect(named(of({ situation: 'lined-up' }))).toEqual(['short-stop']);
    const pushed = of({ strike: { finish: 'snap' } }).find(({ fault }) => fault === 'push');
    expect(pushed!.judgedAs).toEqual(['snap (said of this strike)']);
    const planted = resolve({ ...NO_SCHOOL, situation: 'combination' }).hookFoot!;
    expect(inWords('hookFoot', planted)).toBe('plant the foot (inside a combination)');
  });

  it('of the strike wins over the student’s, the student’s over the gym’s', () => {
    const layers = { gym: { finish: 'snap' }, student: { finish: 'dig' } };
    expect(named(of(layers))).toEqual(['short-stop']);
    expect(named(of({ ...layers, strike: { finish: 'snap' } }))).toEqual(['push']);
  });

  it('changed says which findings change', () => {
    expect(changesBetween(of({}), of({ situation: 'lined-up' }))).toEqual([
      { fault: 'push', name: 'Pushes', before: 'found', after: null },
      { fault: 'short-stop', name: 'Stops at the surface', before: null, after: 'found' },
    ]);
  });

  it('a hook’s fist is not judged by range until the range is said', () => {
    const hook = techniqueById('lead-hook');
    const rolled = readings({ knucklePlane: { ...seconds(1.4, 0.05), unit: 'rad' } });
    const at = (range: SchoolLayers['range']) =>
      judge(hook, rolled, { ...USUAL_RULES, school: resolve({ ...NO_SCHOOL, range }) }).find(
        ({ fault }) => fault === 'hook-elbow-low',
      )?.status;
    expect([at(null), at('close'), at('middle')]).toEqual([undefined, 'found', 'cant-tell']);
  });
});

describe('the catalogue', () => {
  it('every sentence names only its own readings, every leak a drill, every cue is a sentence', () => {
    for (const fault of FAULTS) {
      for (const { evidence, clear, limits } of fault.cases) {
        const quoted = [...`${evidence} ${clear}`.matchAll(/\{([\w.-]+)(:order)?\}/g)];
        const own = [
          ...limits.filter(isOfReading).map(({ reading }) => reading as string),
          'limit',
        ];
        for (const [, id] of quoted) expect(own, fault.id).toContain(id);
        expect(quoted.length > 0 || !limits.some(isOfReading), fault.id).toBe(true);
      }
      expect(drillById(fault.drill), fault.id).toBeDefined();
      expect(fault.cue).toMatch(/\.$/);
    }
  });

  it('refuses a leak that names no drill, or two of one name', () => {
    const [first] = CATALOGUE.faults;
    const twice = { ...CATALOGUE, faults: [first!, first!] };
    expect(catalogueSchema.safeParse(twice).success).toBe(false);
    const adrift = { ...CATALOGUE, faults: [{ ...first!, drill: 'no-such' }] };
    expect(catalogueSchema.safeParse(adrift).success).toBe(false);
    const alone = { ...first!, cases: [{ ...first!.cases[0]!, standsInFor: 'no-such' }] };
    expect(catalogueSchema.safeParse({ ...CATALOGUE, faults: [alone] }).success).toBe(false);
  });

  it('never judges a punch by a leak it cannot have', () => {
    const none = judge(techniqueById('jab'), readings({}));
    const named = none.map((one) => one.fault);
    for (const not of ['slap', 'all-at-once', 'nerve-side', 'kick-no-pivot']) {
      expect(named).not.toContain(not);
    }
    expect(none.every((one) => one.status === 'cant-tell')).toBe(true);
  });
});
