/** Students and their consent to be filmed. */
import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { ageOn, OF_AGE, POWER_AGE } from '@sinew/core/foundation/calendar/age';
import { daySchema, isDay, type Day } from '@sinew/core/foundation/calendar/day';
import {
  LEAST_GIRTH,
  MOST_GIRTH,
  BAND_KINDS,
  SEAMS,
  type OwnBands,
} from '@sinew/core/observe/band/band';
import { type School } from '@sinew/core/judge/school/schools';
import { now, stamps, type Db } from '../database/db';
import { gymForWriting } from '../gym/gym';
import { endSharing } from './sharing';
import { today } from '../database/today';
import type { ConsentTable, StudentTable } from '../database/schema';
import type { Selectable } from 'kysely';
import { COLUMNS } from '../database/columns';

const emptyToNull = (value: unknown) => (value === '' || value === undefined ? null : value);

/** A number as people type it, with comma or point; empty means unknown. */
const typedNumber = (low: number, high: number, message: string) =>
  z.preprocess(
    (value) => {
      const text = typeof value === 'string' ? value.trim().replace(',', '.') : value;
      return text === '' || text === null || text === undefined ? null : Number(text);
    },
    z.number({ error: message }).min(low, message).max(high, message).nullable(),
  );

const girthCm = (band: string) =>
  typedNumber(100 * LEAST_GIRTH, 100 * MOST_GIRTH, `${band} goes 40 to 200 centimetres round.`);

const pastDate = (message: string) =>
  z
    .string()
    .refine((day) => isDay(day) && day >= '1920-01-01', message)
    .refine((day) => !isDay(day) || day <= today(), 'This day is still to come.');

export const birthDate = pastDate(
  'The day of birth, as year-month-day: by it Sinew knows who is under 18.',
);

const shortText = (most: number) =>
  z.string().trim().max(most, `At most ${most} characters fit here.`);

export const studentForm = z.object({
  name: shortText(80).min(1, 'A name is needed to find the student again.'),
  stance: z.enum(['orthodox', 'southpaw']),
  grade: shortText(60).default(''),
  startedOn: z.preprocess(emptyToNull, pastDate('Write the day as year-month-day.').nullable()),
  heightCm: typedNumber(80, 250, 'Height: 80 to 250 cm.'),
  massKg: typedNumber(15, 300, 'Mass: 15 to 300 kg.'),
  injuries: shortText(500).default(''),
  classGroup: shortText(60).default(''),
  bornOn: birthDate,
});

/** The bands of a student. */
export const bandForm = z.object({
  kind: z.enum(BAND_KINDS),
  hipsCm: girthCm('The hips’ band'),
  ribsCm: girthCm('The ribs’ band'),
  seam: z.enum(SEAMS),
});

export type BandInput = z.infer<typeof bandForm>;

/** Made by the page, so that a form sent twice is kept once. */
export const formKey = z.string().regex(/^[\w-]{8,40}$/);

export const consentForm = z.object({
  givenBy: z.enum(['student', 'guardian']),
  name: shortText(80).min(1, 'Who gave it? Write the name.'),
  givenOn: pastDate('On which day? Write it as year-month-day.'),
  expiresOn: z.preprocess(
    emptyToNull,
    daySchema
      .refine((day) => day > today(), 'This day is past: a consent ends on a day to come.')
      .nullable(),
  ),
});

/** A consent is withdrawn: what becomes of the films. */
export const withdrawalForm = z
  .object({
    films: z.enum(['erase', 'keep']),
    /** The first day without them, when they are kept. */
    until: z.preprocess(emptyToNull, daySchema.nullable()).default(null),
  })
  .refine(({ films, until }) => films === 'erase' || (until !== null && until > today()), {
    message: 'Until which day are the films kept? Choose a day to come.',
    path: ['until'],
  });

export type StudentInput = z.infer<typeof studentForm>;
export type ConsentInput = Omit<z.infer<typeof consentForm>, 'expiresOn'> & {
  readonly expiresOn?: Day | null;
};

export interface Consent {
  readonly id: string;
  readonly givenBy: 'student' | 'guardian';
  readonly name: string;
  readonly givenOn: string;
  /** The first day without it; null while it is not withdrawn. */
  readonly expiresOn: string | null;
}

export interface Student {
  readonly id: string;
  readonly name: string;
  readonly stance: 'orthodox' | 'southpaw';
  readonly grade: string;
  readonly startedOn: string | null;
  readonly heightM: number | null;
  readonly massKg: number | null;
  readonly bands: OwnBands;
  readonly injuries: string;
  /** Null for students from before it was asked for. */
  readonly bornOn: Day | null;
  /** Under 18: a guardian consents. */
  readonly isMinor: boolean;
  /** Under 16: no power work. */
  readonly isJunior: boolean;
  readonly isArchived: boolean;
  /** The class; empty for none. */
  readonly classGroup: string;
  /** The student's own choices of school. */
  readonly school: School;
  /** The consent in force, or null: then no clip may be added. */
  readonly consent: Consent | null;
}

const inMetres = (cm: number | null) => (cm === null ? null : cm / 100);

function toColumns(input: StudentInput) {
  return {
    name: input.name,
    stance: input.stance,
    grade: input.grade,
    started_on: input.startedOn,
    height_m: inMetres(input.heightCm),
    mass_kg: input.massKg,
    injuries: input.injuries,
    class_group: input.classGroup,
    is_minor: 0 as const,
    born_on: input.bornOn,
  };
}

function fromRow(
  row: Selectable<StudentTable>,
  consents: readonly Selectable<ConsentTable>[],
  today: Day,
): Student {
  const age = row.born_on === null ? null : ageOn(row.born_on, today);
  // Until the birth date is known the tick says it, and is taken for the younger.
  const isMinor = age === null ? row.is_minor === 1 : age < OF_AGE;
  const isJunior = age === null ? row.is_minor === 1 : age < POWER_AGE;
  // A minor's own word is not enough: only a guardian's consent counts while they are a minor.
  const valid = consents.find(
    (consent) =>
      consent.student_id === row.id &&
      consent.withdrawn_at === null &&
      (consent.expires_on === null || consent.expires_on > today) &&
      (!isMinor || consent.given_by === 'guardian'),
  );
  return {
    id: row.id,
    name: row.name,
    stance: row.stance,
    grade: row.grade,
    startedOn: row.started_on,
    heightM: row.height_m,
    massKg: row.mass_kg,
    bands: {
      kind: row.band_kind ?? 'printed',
      girths: { hips: row.girth_hips_m, ribs: row.girth_ribs_m },
      seam: row.band_seam ?? 'front',
    },
    injuries: row.injuries,
    bornOn: row.born_on,
    isMinor,
    isJunior,
    isArchived: row.archived_at !== null,
    classGroup: row.class_group,
    school: COLUMNS.student.school.readOr(row.school, {}),
    consent: valid
      ? {
          id: valid.id,
          givenBy: valid.given_by,
          name: valid.name,
          givenOn: valid.given_on,
          expiresOn: valid.expires_on,
        }
      : null,
  };
}

/** @param id made by who asks; the same one twice is one student */
export async function addStudent(db: Db, input: StudentInput, id = nanoid()): Promise<string> {
  const gym = await gymForWriting(db);
  await db
    .insertInto('student')
    .values({
      id,
      gym_id: gym.id,
      ...toColumns(input),
      girth_hips_m: null,
      girth_ribs_m: null,
      band_seam: null,
      band_kind: null,
      archived_at: null,
      school: null,
      deleted_at: null,
      ...stamps(),
    })
    .onConflict((on) => on.column('id').doNothing())
    .execute();
  return id;
}

/** For a student from before birth dates were asked for. */
export async function setBirthDate(db: Db, id: string, bornOn: Day): Promise<void> {
  await db
    .updateTable('student')
    .set({ born_on: bornOn, updated_at: now() })
    .where('id', '=', id)
    .execute();
}

/** @returns false when there is no such student */
export async function editStudent(db: Db, id: string, input: StudentInput): Promise<boolean> {
  const result = await db
    .updateTable('student')
    .set({ ...toColumns(input), updated_at: now() })
    .where('id', '=', id)
    .executeTakeFirst();
  return result.numUpdatedRows > 0n;
}

/** @returns false when there is no such student */
export async function setBands(
  db: Db,
  id: string,
  { kind, hipsCm, ribsCm, seam }: BandInput,
): Promise<boolean> {
  const result = await db
    .updateTable('student')
    .set({
      girth_hips_m: inMetres(hipsCm),
      girth_ribs_m: inMetres(ribsCm),
      band_seam: seam,
      band_kind: kind,
      updated_at: now(),
    })
    .where('id', '=', id)
    .executeTakeFirst();
  return result.numUpdatedRows > 0n;
}

export async function setArchived(db: Db, id: string, isArchived: boolean): Promise<void> {
  await db
    .updateTable('student')
    .set({ archived_at: isArchived ? now() : null, updated_at: now() })
    .where('id', '=', id)
    .execute();
}

/** @param id made by who asks; the same one twice is one consent */
export async function recordConsent(
  db: Db,
  studentId: string,
  input: ConsentInput,
  id = nanoid(),
): Promise<void> {
  await db
    .insertInto('consent')
    .values({
      id,
      student_id: studentId,
      given_by: input.givenBy,
      name: input.name,
      given_on: input.givenOn,
      withdrawn_at: null,
      expires_on: input.expiresOn ?? null,
      films_until: null,
      ...stamps(),
    })
    .onConflict((on) => on.column('id').doNothing())
    .execute();
}

/** Mend what was written down of a consent in force. @returns false when there is none such */
export async function changeConsent(
  db: Db,
  consentId: string,
  { name, givenOn, expiresOn }: ConsentInput,
): Promise<boolean> {
  const { numUpdatedRows } = await db
    .updateTable('consent')
    .set({ name, given_on: givenOn, expires_on: expiresOn ?? null, updated_at: now() })
    .where('id', '=', consentId)
    .where('withdrawn_at', 'is', null)
    .executeTakeFirst();
  return numUpdatedRows > 0n;
}

/**
 * Withdraw what consent there is.
 *
 * @param filmsUntil the first day without the films; today erases them at the next maintenance
 */
export async function withdrawConsent(db: Db, studentId: string, filmsUntil: Day): Promise<void> {
  await db
    .updateTable('consent')
    .set({ withdrawn_at: now(), films_until: filmsUntil, updated_at: now() })
    .where('student_id', '=', studentId)
    .where('withdrawn_at', 'is', null)
    .execute();
  await endSharing(db, studentId);
}

/** Everybody but those who were deleted, by name. */
export async function allStudents(db: Db): Promise<Student[]> {
  const [rows, consents] = await Promise.all([
    db.selectFrom('student').selectAll().where('deleted_at', 'is', null).orderBy('name').execute(),
    db.selectFrom('consent').selectAll().orderBy('created_at', 'desc').execute(),
  ]);
  const byStudent = group(consents, ({ student_id }) => student_id);
  const day = today();
  return rows.map((row) => fromRow(row, byStudent.get(row.id) ?? [], day));
}

export async function studentById(db: Db, id: string): Promise<Student | null> {
  const row = await db
    .selectFrom('student')
    .selectAll()
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) return null;
  const consents = await db
    .selectFrom('consent')
    .selectAll()
    .where('student_id', '=', id)
    .orderBy('created_at', 'desc')
    .execute();
  return fromRow(row, consents, today());
}
