/** Students and their consent to be filmed. */
import { group } from 'd3-array';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { daySchema, type Day } from '@sinew/core/calendar/day';
import { schoolSchema, type School } from '@sinew/core/school/catalogue';
import { now, stamps, type Db } from './database';
import { theGym } from './gym';
import { today } from './today';
import type { ConsentTable, StudentTable } from './schema';
import type { Selectable } from 'kysely';

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

const pastDate = (message: string) =>
  z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}$/, message)
    .refine((day) => !Number.isNaN(Date.parse(day)) && day >= '1920-01-01', message)
    .refine((day) => Date.parse(day) <= Date.now() + 86_400_000, 'This day is still to come.');

export const studentForm = z.object({
  name: z.string().trim().min(1, 'A name is needed to find the student again.').max(80),
  stance: z.enum(['orthodox', 'southpaw']),
  grade: z.string().trim().max(60).default(''),
  startedOn: z.preprocess(emptyToNull, pastDate('Write the day as year-month-day.').nullable()),
  heightCm: typedNumber(80, 250, 'Height in centimetres, 80 to 250.'),
  massKg: typedNumber(15, 300, 'Mass in kilograms, 15 to 300.'),
  injuries: z.string().trim().max(500).default(''),
  classGroup: z.string().trim().max(60).default(''),
  isMinor: z.preprocess((value) => value === 'on' || value === true, z.boolean()),
});

export const consentForm = z.object({
  givenBy: z.enum(['student', 'guardian']),
  name: z.string().trim().min(1, 'Who gave it? Write the name.').max(80),
  givenOn: pastDate('On which day? Write it as year-month-day.'),
  expiresOn: z.preprocess(emptyToNull, daySchema.nullable()),
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
  readonly injuries: string;
  readonly isMinor: boolean;
  readonly isArchived: boolean;
  /** The class; empty for none. */
  readonly classGroup: string;
  /** The student's own choices of school. */
  readonly school: School;
  /** The consent in force, or null: then no clip may be added. */
  readonly consent: Consent | null;
}

function toColumns(input: StudentInput) {
  return {
    name: input.name,
    stance: input.stance,
    grade: input.grade,
    started_on: input.startedOn,
    height_m: input.heightCm === null ? null : input.heightCm / 100,
    mass_kg: input.massKg,
    injuries: input.injuries,
    class_group: input.classGroup,
    is_minor: input.isMinor ? (1 as const) : (0 as const),
  };
}

function fromRow(
  row: Selectable<StudentTable>,
  consents: readonly Selectable<ConsentTable>[],
  today: Day,
): Student {
  // A minor's own word is not enough: only a guardian's consent counts while they are a minor.
  const valid = consents.find(
    (consent) =>
      consent.student_id === row.id &&
      consent.withdrawn_at === null &&
      (consent.expires_on === null || consent.expires_on > today) &&
      (row.is_minor === 0 || consent.given_by === 'guardian'),
  );
  return {
    id: row.id,
    name: row.name,
    stance: row.stance,
    grade: row.grade,
    startedOn: row.started_on,
    heightM: row.height_m,
    massKg: row.mass_kg,
    injuries: row.injuries,
    isMinor: row.is_minor === 1,
    isArchived: row.archived_at !== null,
    classGroup: row.class_group,
    school: row.school === null ? {} : schoolSchema.parse(JSON.parse(row.school)),
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

export async function addStudent(db: Db, input: StudentInput): Promise<string> {
  const id = nanoid();
  const gym = await theGym(db);
  await db
    .insertInto('student')
    .values({
      id,
      gym_id: gym.id,
      ...toColumns(input),
      archived_at: null,
      school: null,
      deleted_at: null,
      ...stamps(),
    })
    .execute();
  return id;
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

export async function setArchived(db: Db, id: string, isArchived: boolean): Promise<void> {
  await db
    .updateTable('student')
    .set({ archived_at: isArchived ? now() : null, updated_at: now() })
    .where('id', '=', id)
    .execute();
}

export async function recordConsent(db: Db, studentId: string, input: ConsentInput): Promise<void> {
  await db
    .insertInto('consent')
    .values({
      id: nanoid(),
      student_id: studentId,
      given_by: input.givenBy,
      name: input.name,
      given_on: input.givenOn,
      withdrawn_at: null,
      expires_on: input.expiresOn ?? null,
      ...stamps(),
    })
    .execute();
}

export async function withdrawConsent(db: Db, studentId: string): Promise<void> {
  await db
    .updateTable('consent')
    .set({ withdrawn_at: now(), updated_at: now() })
    .where('student_id', '=', studentId)
    .where('withdrawn_at', 'is', null)
    .execute();
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
