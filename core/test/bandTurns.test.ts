/** What is kept of worn bands, the sheets they are printed on, and a clip that is measured by them. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { clean } from '@sinew/fighters/fighter/recipe';
import { truthOfStrike } from '@sinew/fighters/fighter/truth';
import { bandedFilm, USUALLY_BANDED } from '@sinew/fighters/film/banded';
import { readBanded } from '@sinew/fighters/trials/banded';
import { measureInClip, type ClipInput } from '../src/analysis/analyzeClip';
import { readClipFile, writeClipFile } from '../src/analysis/clipFile';
import { EMPTY_DOCUMENT, type ClipDocument } from '../src/analysis/clipDocument';
import { trackedOf } from '../src/analysis/clipFacts';
import { isAbsent } from '../src/foundation/reading/reading';
import { NO_EDITS } from '../src/judge/library/edits';
import { BANDS, BAR, PRINTED, wornOn, wornBandsSchema } from '../src/observe/band/band';
import { bandTurnsSchema, keptBands, turnOf, turnsOf } from '../src/observe/band/bandTurns';
import { jointsInFilm } from '../src/observe/band/jointsInFilm';
import { withoutMoments, type BandReading } from '../src/observe/band/readBands';
import { BARS_A_SHEET, sheetsFor, sheetsOf } from '../src/observe/band/sheets';
import { nearestFrame } from '../src/observe/track/time';
import { detectionOf } from '../src/observe/track/poseDetection';
import { trackFromPlaced } from '../src/observe/track/track';

const read = (yaw: number): BandReading => ({
  time: 0,
  yaw,
  shake: 0.01,
  lasting: 0.05,
  square: 0,
});
const ARM = 'an arm lies over the band';
const arm: BandReading = { time: 0, why: ARM };

describe('what is kept of bands', () => {
  const worn = wornOn({ kind: 'printed', girths: { hips: 0.96, ribs: null }, seam: 'front' });

  it('is what was read, by frame, and how often nothing was, and why', () => {
    const kept = keptBands(
      [
        { frames: [4, 6], read: { hips: [read(0.1), arm] } },
        { frames: [40, 42, 44], read: { hips: [arm, { time: 0, why: 'other' }, read(0.2)] } },
      ],
      worn,
      false,
    );
    expect(kept.bands.hips!.turn).toMatchObject({ frames: [4, 44], shake: [0.01, 0.01] });
    expect(kept.bands.hips!.silent).toEqual([
      { why: ARM, frames: 2 },
      { why: 'other', frames: 1 },
    ]);
    expect(kept.bands.ribs).toBeUndefined();
    expect(bandTurnsSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
    expect(turnsOf(kept)).toMatchObject({ isSquareKnown: false, ribs: null });
  });

  it('is refused when frames go back or a frame lacks its turn', () => {
    const kept = keptBands(
      [{ frames: [4, 6], read: { hips: [read(0.1), read(0.2)] } }],
      worn,
      true,
    );
    const turn = kept.bands.hips!.turn!;
    const withTurn = (change: object) => ({
      ...kept,
      bands: { hips: { ...kept.bands.hips, turn: { ...turn, ...change } } },
    });
    expect(bandTurnsSchema.safeParse(withTurn({})).success).toBe(true);
    expect(bandTurnsSchema.safeParse(withTurn({ frames: [6, 4] })).success).toBe(false);
    expect(bandTurnsSchema.safeParse(withTurn({ yaw: [0.1] })).success).toBe(false);
    expect(bandTurnsSchema.safeParse(withTurn({ shake: [0, 0.1] })).success).toBe(false);
  });

  it('knows only bands whose girth was measured, and that a person can have', () => {
    expect(
      Object.keys(wornOn({ kind: 'printed', girths: { hips: null, ribs: 0.9 }, seam: 'back' })),
    ).toEqual(['ribs']);
    expect(
      wornBandsSchema.safeParse(
        wornOn({ kind: 'printed', girths: { hips: 9.6, ribs: null }, seam: 'back' }),
      ).success,
    ).toBe(false);
  });

  it('reads joints where they are, on the way between two, or close in time', () => {
    const times = Array.from({ length: 30 }, (_, i) => i / 120);
    const at = (frame: number) =>
      (['leftHip', 'rightHip'] as const).map((landmark) => ({
        landmark,
        frame,
        x: landmark === 'leftHip' ? 10 : 30,
        y: frame,
      }));
    const jointsAt = jointsInFilm(trackFromPlaced([...at(0), ...at(10)], times, 720));
    expect(jointsAt(10).hips).toEqual([
      { x: 10, y: 10 },
      { x: 30, y: 10 },
    ]);
    expect(jointsAt(11).hips?.[0].y).toBe(10);
    // A tracker loses joints in the turn, and has them again a few frames on.
    expect(jointsAt(4).hips?.map(({ y }) => y)).toEqual([4, 4]);
    const farApart = jointsInFilm(trackFromPlaced([...at(0), ...at(20)], times, 720));
    expect(farApart(10).hips).toBeNull();
    expect(farApart(19).hips?.[0].y).toBe(20);
    expect(jointsAt(20).hips).toBeNull();
    expect(jointsAt(10).shoulders).toBeNull();
  });

  it('has no code that is read for a moment between hidden frames, but one that is read with gaps', () => {
    const times = Array.from({ length: 80 }, (_, i) => i / 120);
    const isSeen = (i: number) => i < 4 || i === 11 || (i >= 20 && i % 3 !== 0);
    const told = withoutMoments(
      times.map((time, i) => ({ ...(isSeen(i) ? read(0.1) : arm), time })),
    );
    told.forEach((one, i) => {
      expect('yaw' in one, `${i}`).toBe(i >= 20 && i % 3 !== 0);
      if (i < 4 && 'why' in one) expect(one.why).toMatch(/moment/);
      if (i === 5 && 'why' in one) expect(one.why).toBe(ARM);
    });
  });

  it('goes with a joint that speeds up, and not with one that is elsewhere for 50 ms', () => {
    const times = Array.from({ length: 40 }, (_, i) => i / 120);
    const path = (frame: number) => 100 + 0.05 * frame ** 2;
    const jointsAt = jointsInFilm(
      trackFromPlaced(
        times.flatMap((_, frame) =>
          (['leftShoulder', 'rightShoulder'] as const).map((landmark) => {
            const isElsewhere = landmark === 'rightShoulder' && frame >= 20 && frame < 26;
            return { landmark, frame, x: path(frame) + (isElsewhere ? 60 : 0), y: 50 };
          }),
        ),
        times,
        720,
      ),
    );
    times.forEach((_, frame) => {
      const [left, right] = jointsAt(frame).shoulders!;
      expect(left.x).toBeCloseTo(path(frame), 9);
      // It lags for some frames while it is away, by less than a third of the jump.
      expect(Math.abs(right.x - path(frame))).toBeLessThan(20);
    });
  });
});

describe('a band on sheets', () => {
  it.each([3, 4, 5, 6])('is whole on %i sheets, the triangle in its middle', (count) => {
    for (const band of BANDS) {
      const sheets = sheetsOf(band, count);
      const bars = sheets.flatMap((sheet) => sheet.bars);
      const middle = PRINTED[band].length / 2;
      expect(bars.length).toBe(count * BARS_A_SHEET);
      bars.forEach(({ index, isWhite }, i) => {
        expect(index).toBe(middle - bars.length / 2 + i);
        expect(isWhite).toBe(PRINTED[band][index] === '1');
      });
      expect(sheets.filter(({ hasTab }) => hasTab).length).toBe(count - 1);
      // With an even number of sheets it stands on the line where two meet, and is on both.
      const places = sheets.flatMap(({ triangle }, sheet) =>
        triangle === null ? [] : [sheet * BARS_A_SHEET * BAR + triangle],
      );
      places.forEach((place) => expect(place).toBeCloseTo((bars.length * BAR) / 2, 9));
      expect(places.length).toBe(count % 2 ? 1 : 2);
    }
  });

  it('shows the same number at both ends, and it is the way round', () => {
    const sheets = sheetsOf('hips', 4);
    const numbered = sheets.flatMap(({ ticks }, sheet) =>
      ticks.flatMap(({ at, cm }) => (cm === null ? [] : [{ place: sheet * 0.24 + at, cm }])),
    );
    for (const cm of [90, 75, 50]) {
      const [left, right] = numbered.filter((one) => one.cm === cm);
      expect(right!.place - left!.place).toBeCloseTo(cm / 100, 9);
    }
  });

  it('takes as many sheets as go round, with something to overlap', () => {
    expect([0.7, 0.71, 0.94, 0.95, 1.1, 1.9].map(sheetsFor)).toEqual([3, 4, 4, 5, 5, 6]);
  });
});

describe('a clip whose student wears bands, filmed from behind', () => {
  const girths = { hips: 0.98, ribs: 0.92 };
  const recipe = clean('cross');
  const film = {
    ...USUALLY_BANDED,
    recipe,
    hips: { code: PRINTED.hips, girth: girths.hips, flatness: 0.72, boxiness: 2.2 },
    ribs: { code: PRINTED.ribs, girth: girths.ribs, flatness: 0.78, boxiness: 2.3 },
  };
  const { times, points } = bandedFilm(film);
  const trial = readBanded(film, { azimuth: null });
  const kept = keptBands(
    [{ frames: trial.frames, read: trial.read }],
    wornOn({ kind: 'printed', girths, seam: film.seam }),
    false,
  );
  const detections = times.map((_, frame) =>
    detectionOf(frame, (landmark) => {
      const [x, y] = points[landmark]?.[frame] ?? [0, 0];
      return { x, y, visibility: points[landmark] ? 1 : 0, inSpace: [0, 0, 0] };
    }),
  );
  const contact = { frame: nearestFrame(times, recipe.contact), width: 1 };
  const strike = { id: 'one', technique: 'cross', side: 'right', marks: { contact } } as const;
  const document: ClipDocument = { ...EMPTY_DOCUMENT, view: 'behind', strikes: [strike] };
  const facts = { frameTimes: times, ...film.size };
  const student = { school: {}, stance: 'orthodox', heightM: 1.78, massKg: 75 } as const;
  const clip: ClipInput = {
    document,
    film: { ...facts, tracked: trackedOf(detections, facts, document), bands: turnsOf(kept) },
    student,
    second: null,
  };

  it('tells who moves first, by bands, and how far they turn', () => {
    const { readings, events } = measureInClip(clip, strike);
    expect([events.hips?.source, events.trunk?.source]).toEqual(['measured-band', 'measured-band']);
    const { times: truth } = truthOfStrike(recipe);
    const lead = readings['lead.hipsTrunk'];
    if (isAbsent(lead)) throw new Error(lead.absent);
    expect(Math.abs(lead.value - (truth.trunk! - truth.hips!))).toBeLessThan(1.96 * lead.sigma);
    // Sure that 54 ms are more than 20.
    expect(lead.value - 1.645 * lead.sigma).toBeGreaterThan(0.02);
    // What both bands do not know together is no doubt of one against the other.
    const apart = readings['separation.max'];
    if (isAbsent(apart)) throw new Error(apart.absent);
    expect(apart.source).toBe('measured-band');
    expect(1.96 * apart.sigma).toBeLessThan((12 * Math.PI) / 180);
  });

  it('does not tell when a turn is half-way that is seen from its middle on', () => {
    const { hips, ribs, isSquareKnown } = turnsOf(kept);
    const whole = measureInClip(clip, strike).readings;
    const hidden = (truthOfStrike(recipe).times.hips! + 0.06) * film.rate;
    const from = ribs!.frames.findIndex((frame) => frame > hidden);
    const late = {
      frames: ribs!.frames.slice(from),
      yaw: ribs!.yaw.slice(from),
      shake: ribs!.shake.slice(from),
      lasting: ribs!.lasting.slice(from),
    };
    const bands = { hips, ribs: late, isSquareKnown };
    const { readings } = measureInClip({ ...clip, film: { ...clip.film, bands } }, strike);
    for (const id of ['turn.half.trunk', 'lead.half'] as const) {
      expect(isAbsent(whole[id]), id).toBe(false);
      const told = readings[id];
      expect('source' in told && told.source === 'measured-band', id).toBe(false);
    }
    expect(readings['turn.half.pelvis']).toMatchObject({ source: 'measured-band' });
  });

  it('shows both lines from above, as far as the bands were read', () => {
    const { turns, traces } = measureInClip(clip, strike);
    expect(turns).toMatchObject({ source: 'measured-band', isMirrored: false, sign: 1 });
    const { pelvis, trunk } = turns!;
    expect(Math.min(pelvis!.frames.length, trunk!.frames.length)).toBeGreaterThan(40);
    // Lanes that the picture itself cannot fill.
    expect([traces.pelvis?.unit, traces.trunk?.unit]).toEqual(['rad/s', 'rad/s']);
  });

  it('does not tell the angle of a stance that was only taken for granted', () => {
    const { readings } = measureInClip(clip, strike);
    expect(isAbsent(readings['angle.ready'])).toBe(true);
  });

  it('says the same of the clip’s own file', () => {
    const text = writeClipFile({
      film: { ...facts, detections, series: null, bands: kept },
      document,
      student,
      second: null,
      library: NO_EDITS,
    });
    const again = readClipFile(text).clip;
    expect(measureInClip(again, strike).readings).toEqual(measureInClip(clip, strike).readings);
    // Files from before bands were read have none.
    const { bands: _, ...before } = JSON.parse(text).film as Record<string, unknown>;
    const old = JSON.stringify({ ...JSON.parse(text), film: before });
    expect(readClipFile(old).clip.film.bands).toBeNull();
  });
});

it('keeps nothing of a band that was never read', () => {
  expect(turnOf([arm, arm], [1, 2])).toBeNull();
});

/** At least so many frames of 140 are read, and all within so many degrees. */
const PRINTED_FILMS = [
  { file: 'cross-bands.mp4', leastFrames: 119, within: 3.9 },
  { file: 'hook-bands.mp4', leastFrames: 129, within: 4.3 },
];

it.each(PRINTED_FILMS)(
  'a film of another painter than the reader’s is read within its ± (the demo’s $file, tracked by the app)',
  ({ file, leastFrames, within }) => {
    const film = DEMO_CLIPS.find((clip) => clip.file === file)!;
    const pose = mover(film.recipe);
    const kept = bandTurnsSchema.parse(
      JSON.parse(readFileSync(`demo/detections/${file}.bands.json`, 'utf8')),
    );
    for (const [band, left, right] of [
      ['hips', 'leftHip', 'rightHip'],
      ['ribs', 'leftShoulder', 'rightShoulder'],
    ] as const) {
      const { frames, yaw, shake, lasting } = kept.bands[band]!.turn!;
      expect(frames.length).toBeGreaterThanOrEqual(leastFrames);
      const misses = frames.map((frame, i) => {
        const now = pose(frame / film.rate);
        const [l, r] = [now[left], now[right]];
        return Math.abs(yaw[i]! - Math.atan2(r[0] - l[0], r[2] - l[2]));
      });
      expect(Math.max(...misses)).toBeLessThan((within * Math.PI) / 180);
      const inside = misses.filter((miss, i) => miss < 1.96 * Math.hypot(shake[i]!, lasting[i]!));
      expect(inside.length).toBeGreaterThanOrEqual(0.95 * frames.length);
    }
  },
);
