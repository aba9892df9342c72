/** The gym: its name, its classes, the grades it gives and what each may do. */
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { INTENTS } from '@sinew/core/foundation/drill/intent';
import { sessionSchema, SESSIONS, type Session } from '@sinew/core/train/work/session';
import { now, stamps, type Db } from '../database/db';

export interface Gym {
  readonly id: string;
  readonly name: string;
  readonly className: string;
}

/** The gym of this data folder; made with a plain name the first time. */
export async function theGym(db: Db): Promise<Gym> {
  const row = await db.selectFrom('gym').selectAll().executeTakeFirst();
  return row
    ? { id: row.id, name: row.name, className: row.class_name }
    : createGym(db, 'Your gym', '');
}

export async function createGym(db: Db, name: string, className: string): Promise<Gym> {
  const id = nanoid();
  await db
    .insertInto('gym')
    .values({ id, name, class_name: className, library: null, settings: null, ...stamps() })
    .execute();
  return { id, name, className };
}

const name = z.string().trim().min(1).max(60);

export const settingsSchema = z.object({
  name: z.string().trim().min(1, 'The gym needs a name.').max(80),
  className: z.string().trim().max(80),
  /** Lowest first. */
  grades: z.array(name).max(30),
  /** The grade from which an intent is allowed. */
  from: z.partialRecord(z.enum(INTENTS), name),
  /** The gym's own sessions, and those that come with Sinew as it has changed them. */
  sessions: z.array(sessionSchema).max(60).default([]),
});

export type Settings = z.infer<typeof settingsSchema>;

const storedSchema = settingsSchema.pick({ grades: true, from: true, sessions: true });

export async function settingsOf(db: Db): Promise<Settings> {
  const { id, ...gym } = await theGym(db);
  const { settings } = await db
    .selectFrom('gym')
    .select('settings')
    .where('id', '=', id)
    .executeTakeFirstOrThrow();
  const stored =
    settings === null
      ? { grades: [], from: {}, sessions: [] }
      : storedSchema.parse(JSON.parse(settings));
  return { ...gym, ...stored };
}

export async function saveSettings(db: Db, settings: Settings): Promise<void> {
  const { name: gymName, className, ...rest } = settings;
  const gym = await theGym(db);
  await db
    .updateTable('gym')
    .set({
      ...{ name: gymName, class_name: className, settings: JSON.stringify(rest) },
      updated_at: now(),
    })
    .where('id', '=', gym.id)
    .execute();
}

/** Sessions as the gym has them: those that come with Sinew, changed or not, then its own. */
export async function sessionsOf(db: Db): Promise<Session[]> {
  const { sessions } = await settingsOf(db);
  const changed = new Map(sessions.map((session) => [session.id, session]));
  const own = sessions.filter(({ id }) => !SESSIONS.some((one) => one.id === id));
  return [...SESSIONS.map((session) => changed.get(session.id) ?? session), ...own];
}

/** Keep a session; null takes the gym's own version away, and what comes with Sinew is back. */
export async function keepSession(db: Db, id: string, session: Session | null): Promise<void> {
  const settings = await settingsOf(db);
  const others = settings.sessions.filter((one) => one.id !== id);
  await saveSettings(db, { ...settings, sessions: session ? [...others, session] : others });
}
