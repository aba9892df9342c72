/**
 * What the rows of a gym's file must mean beyond the types of their cells, so that nothing is taken over
 * that a page could stumble on: names of things there are, days and instants, numbers that can be, JSON
 * that its column can read, bytes that can be decoded, films that come along.
 */
import { z } from 'zod';
import { wrongWith } from '@sinew/core/foundation/problem/problem';
import { daySchema } from '@sinew/core/foundation/calendar/day';
import { COUNTED_BY, INTENTS } from '@sinew/core/foundation/drill/intent';
import { SOURCES } from '@sinew/core/foundation/reading/reading';
import { TECHNIQUES, VIEWS } from '@sinew/core/foundation/technique/techniques';
import { azimuthSchema, noteSchema } from '@sinew/core/analysis/clipDocument';
import { readTrackJson } from '@sinew/core/format/trackJson';
import { RANGES, SITUATIONS } from '@sinew/core/judge/school/resolve';
import { BAND_KINDS, LEAST_GIRTH, MOST_GIRTH, SEAMS } from '@sinew/core/observe/band/band';
import { EVENTS } from '@sinew/core/measure/events/events';
import { HURT_PLACES } from '@sinew/core/train/work/condition';
import { STANCES } from '@sinew/core/train/work/prescription';
import { decodeDetections } from '../../api/detectionBlob';
import { MODELS } from '../../api/models';
import { deedKind } from '../access/deedKinds';
import { decodePlaced, decodeTimes } from '../bench/placedBlob';
import { COLUMNS } from '../database/columns';
import type { JsonColumn } from '../database/jsonColumn';
import type { Row, TableName } from './gymTables';

const id = z.string().regex(/^[\w-]{1,120}$/, 'is no name of a row');
const sha256 = z.string().regex(/^[0-9a-f]{64}$/, 'is no name of a film');
const instant = z.iso.datetime('is no instant of time');
const technique = z.enum(TECHNIQUES.map((one) => one.id));
const intent = z.enum(INTENTS);
const flag = z.union([z.literal(0), z.literal(1)]);
const whole = z.number().int().nonnegative();
const positive = z.number().positive();

const girth = z.number().min(LEAST_GIRTH).max(MOST_GIRTH).nullable();

/** A cell that a function of ours must be able to read. */
const readable = (what: string, read: (cell: never) => unknown) =>
  z.custom<unknown>((cell) => {
    try {
      read(cell as never);
      return true;
    } catch {
      return false;
    }
  }, `holds no ${what}`);

/** A cell of JSON, or none. */
const json = (column: Pick<JsonColumn<unknown>, 'isReadable'>, what: string) =>
  z.custom<unknown>((cell) => column.isReadable(cell as string | null), `holds no ${what}`);

function ascending(blob: Buffer): void {
  const times = decodeTimes(blob);
  const isSound = times.every(
    (time, i) => Number.isFinite(time) && (i === 0 || time > times[i - 1]!),
  );
  if (blob.length % 8 !== 0 || !isSound) throw new Error('no times of frames');
}

/** The cells of a table that have a meaning of their own. */
const MEANING: Readonly<Partial<Record<TableName, z.ZodRawShape>>> = {
  gym: {
    library: json(COLUMNS.gym.library, 'library'),
    settings: json(COLUMNS.gym.settings, 'settings of a gym'),
  },
  camera_setup: {
    width: positive,
    height: positive,
    calibration: json(COLUMNS.camera_setup.calibration, 'calibration'),
  },
  student: {
    stance: z.enum(['orthodox', 'southpaw']),
    started_on: daySchema.nullable(),
    born_on: daySchema.nullable(),
    height_m: z.number().min(0.3).max(3).nullable(),
    mass_kg: z.number().min(2).max(500).nullable(),
    girth_hips_m: girth,
    girth_ribs_m: girth,
    band_seam: z.enum(SEAMS).nullable(),
    band_kind: z.enum(BAND_KINDS).nullable(),
    is_minor: flag,
    school: json(COLUMNS.student.school, 'choices of school'),
  },
  consent: {
    given_by: z.enum(['student', 'guardian']),
    given_on: daySchema,
    expires_on: daySchema.nullable(),
    films_until: daySchema.nullable(),
  },
  sharing: { given_by: z.enum(['student', 'guardian']), given_on: daySchema },
  clip: {
    sha256,
    bytes: whole,
    view: z.enum(VIEWS),
    azimuth: azimuthSchema.nullable(),
    capture_rate: positive.nullable(),
    width: positive,
    height: positive,
    frame_times: readable('times of frames', ascending),
    scale: json(COLUMNS.clip.scale, 'scale'),
    target: json(COLUMNS.clip.target, 'line to the target'),
    purpose: json(COLUMNS.clip.purpose, 'purpose'),
    rectangle: json(COLUMNS.clip.rectangle, 'rectangle'),
    lens: json(COLUMNS.clip.lens, 'lens'),
    refused: json(COLUMNS.clip.refused, 'stretches of frames'),
    corrections: json(COLUMNS.clip.corrections, 'corrections'),
    drawings: json(COLUMNS.clip.drawings, 'drawings'),
    note: noteSchema.nullable(),
    intent: intent.nullable(),
    round: z.number().int().positive().nullable(),
    revision: whole,
  },
  track: { source: z.literal('hand'), points: readable('points', decodePlaced) },
  survey: { survey: json(COLUMNS.survey.survey, 'survey of a film') },
  band_turn: { turns: json(COLUMNS.band_turn.turns, 'turns of worn bands') },
  tracking: {
    model: z.enum(MODELS),
    state: z.enum(['wanted', 'paused', 'done', 'failed']),
    person: json(COLUMNS.tracking.person, 'box round a person'),
    found: json(COLUMNS.tracking.found, 'people found'),
  },
  detection: { points: readable('detections', decodeDetections) },
  series: { begins: z.number(), track: readable('series of landmarks', readTrackJson) },
  view_pair: {
    seconds: z.number(),
    sigma: z.number().nonnegative(),
    by: z.enum(['sound', 'eye']),
    pairs: whole,
  },
  strike: {
    technique,
    side: z.enum(['left', 'right']),
    position: whole,
    from_frame: whole.nullable(),
    to_frame: whole.nullable(),
    is_automatic: flag,
    school: json(COLUMNS.strike.school, 'choices of school'),
    situation: z.enum(Object.keys(SITUATIONS)).nullable(),
    range: z.enum(RANGES).nullable(),
    audit: json(COLUMNS.strike.audit, 'word of the eye'),
    looks: json(COLUMNS.strike.looks, 'blind looks'),
    note: noteSchema.nullable(),
    marks_left: whole,
  },
  mark: {
    event: z.enum(EVENTS),
    frame: whole,
    width: positive,
    time: z.number(),
    sigma: z.number().nonnegative(),
    source: z.enum(SOURCES),
  },
  measured: {
    links: json(COLUMNS.measured.links, 'verdicts on links'),
    shows: json(COLUMNS.measured.shows, 'list of leaks'),
  },
  repeat_marking: { marks: json(COLUMNS.repeat_marking.marks, 'marks') },
  finding: {
    status: z.enum(['accepted', 'dismissed', 'later']),
    judged_by: json(COLUMNS.finding.judged_by, 'readings that judged it'),
    judged_as: json(COLUMNS.finding.judged_as, 'school'),
    cost: json(COLUMNS.finding.cost, 'cost'),
  },
  cue: { technique, status: z.enum(['active', 'closed']) },
  prescription: {
    technique: technique.nullable(),
    stances: z.enum(STANCES),
    intent,
    given_on: daySchema,
    next_check: daySchema,
    status: z.enum(['active', 'done', 'stopped']),
  },
  drill_log: {
    technique: technique.nullable(),
    day: daySchema,
    at: instant,
    intent,
    strikes: whole,
    seconds: whole,
    clean: whole.nullable(),
    counted_by: z.enum(COUNTED_BY),
  },
  gate_step: {
    technique,
    kind: z.enum(['override', 'injury']),
    at: instant,
    to_intent: intent.nullable(),
  },
  deed: { what: deedKind },
  plan_item: { day: daySchema, position: whole, kind: z.enum(['session', 'retest', 'note']) },
  note: { technique: technique.nullable(), day: daySchema },
  hurt_note: { day: daySchema, place: z.enum(HURT_PLACES) },
  field_test: { day: daySchema, given: json(COLUMNS.field_test.given, 'test') },
};

/** Cells that mean the same in every table, by how their column is called. */
function byName(column: string): z.ZodType | null {
  if (column === 'id' || column.endsWith('_id')) return z.union([id, whole]).nullable();
  if (column.endsWith('_at')) return instant.nullable();
  return null;
}

/** @returns what is wrong with a row of today's tables, or null */
export function wrongWithRow(table: TableName, row: Row): string | null {
  for (const [column, cell] of Object.entries(row)) {
    const meaning = (MEANING[table]?.[column] as z.ZodType | undefined) ?? byName(column);
    const found = meaning?.safeParse(cell);
    if (found && !found.success) return wrongWith({ ...found.error.issues[0]!, path: [column] });
  }
  return null;
}
