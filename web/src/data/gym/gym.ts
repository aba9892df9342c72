/** The gym: its name, its classes, the grades it gives and what each may do. */
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { SESSIONS, type Session } from '@sinew/core/train/work/session';
import { COLUMNS, gymSettingsSchema } from '../database/columns';
import { now, stamps, type Db } from '../database/db';
import { changedMeanwhile, isAsSeen } from '../database/seen';
import { setManner, USUAL_MANNER } from '../../manner/manner';

export interface Gym {
  readonly name: string;
  readonly className: string;
}

const UNNAMED = { name: 'Your gym', className: '' };

/** The gym of this data folder, under a plain name until it has one. */
export async function theGym(db: Db): Promise<Gym> {
  const row = await db.selectFrom('gym').select(['name', 'class_name']).executeTakeFirst();
  return row ? { name: row.name, className: row.class_name } : UNNAMED;
}

/** The same for what is written under it; made the first time. */
export async function gymForWriting(db: Db): Promise<Gym & { readonly id: string }> {
  const row = await db.selectFrom('gym').selectAll().executeTakeFirst();
  return row
    ? { id: row.id, name: row.name, className: row.class_name }
    : createGym(db, UNNAMED.name, UNNAMED.className);
}

export async function createGym(db: Db, name: string, className: string) {
  const id = nanoid();
  await db
    .insertInto('gym')
    .values({ id, name, class_name: className, library: null, settings: null, ...stamps() })
    .execute();
  return { id, name, className };
}

export const settingsSchema = z.object({
  name: z.string().trim().min(1, 'The gym needs a name.').max(80, 'The gym’s name is too long.'),
  className: z.string().trim().max(80, 'The class’ name is too long.'),
  ...gymSettingsSchema.shape,
});

export type Settings = z.infer<typeof settingsSchema>;

const NOTHING_SAID = { grades: [], from: {}, sessions: [], manner: USUAL_MANNER };

export async function settingsOf(db: Db): Promise<Settings> {
  const gym = await theGym(db);
  const row = await db.selectFrom('gym').select('settings').executeTakeFirst();
  return { ...gym, ...COLUMNS.gym.settings.readOr(row?.settings ?? null, NOTHING_SAID) };
}

export async function saveSettings(db: Db, settings: Settings): Promise<void> {
  const { name: gymName, className, ...rest } = settings;
  const gym = await gymForWriting(db);
  const row = await db.selectFrom('gym').select('settings').executeTakeFirst();
  // What cannot be read stays until something is said anew, as a name is not.
  const isLeft =
    !COLUMNS.gym.settings.isReadable(row?.settings ?? null) && isAsSeen(rest, NOTHING_SAID);
  await db
    .updateTable('gym')
    .set({
      name: gymName,
      class_name: className,
      settings: isLeft ? row!.settings : COLUMNS.gym.settings.write(rest),
      updated_at: now(),
    })
    .where('id', '=', gym.id)
    .execute();
}

/** Everything that is read from now on is written as this gym writes it. */
export async function writeInItsManner(db: Db): Promise<void> {
  setManner((await settingsOf(db)).manner);
}

/**
 * The same by somebody who has seen them.
 *
 * @throws Problem `conflict` when they are not as they were seen
 */
export async function changeSettings(db: Db, settings: Settings, seen: Settings): Promise<void> {
  await db.transaction().execute(async (trx) => {
    if (!isAsSeen(await settingsOf(trx), seen)) throw changedMeanwhile('The gym’s settings were');
    await saveSettings(trx, settings);
  });
  await writeInItsManner(db);
}

/** Sessions as the gym has them: those that come with Sinew, changed or not, then its own. */
export async function sessionsOf(db: Db): Promise<Session[]> {
  const { sessions } = await settingsOf(db);
  const changed = new Map(sessions.map((session) => [session.id, session]));
  const own = sessions.filter(({ id }) => !SESSIONS.some((one) => one.id === id));
  return [...SESSIONS.map((session) => changed.get(session.id) ?? session), ...own];
}

/**
 * Keep a session; null takes the gym's own version away, and what comes with Sinew is back.
 *
 * @param seen the session as it was, or as it was first drawn up
 * @throws Problem `conflict` when it is not as it was seen
 */
export async function keepSession(db: Db, session: Session | null, seen: Session): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const now = (await sessionsOf(trx)).find(({ id }) => id === seen.id);
    if (now && !isAsSeen(now, seen)) throw changedMeanwhile('This session was');
    const settings = await settingsOf(trx);
    const others = settings.sessions.filter(({ id }) => id !== seen.id);
    await saveSettings(trx, { ...settings, sessions: session ? [...others, session] : others });
  });
}
