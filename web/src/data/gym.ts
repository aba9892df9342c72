import { nanoid } from 'nanoid';
import { stamps, type Db } from './database';

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
    .values({ id, name, class_name: className, library: null, ...stamps() })
    .execute();
  return { id, name, className };
}
