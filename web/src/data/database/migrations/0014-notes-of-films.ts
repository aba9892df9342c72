import { sql, type Kysely } from 'kysely';

/**
 * A coach's words on a film and on a strike, and what films are found by: their words, made when
 * somebody looks for them and thrown away by whatever changes them.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('clip').addColumn('note', 'text').execute();
  await db.schema.alterTable('strike').addColumn('note', 'text').execute();
  await db.schema
    .createTable('film_text')
    .addColumn('id', 'integer', (c) => c.primaryKey())
    .addColumn('clip_id', 'text', (c) =>
      c.notNull().unique().references('clip.id').onDelete('cascade'),
    )
    .addColumn('words', 'text', (c) => c.notNull())
    .modifyEnd(sql`strict`)
    .execute();
  const run = (text: string) => sql.raw(text).execute(db);
  await run(`create virtual table film_words using fts5(
    words, content='film_text', content_rowid='id',
    tokenize='unicode61 remove_diacritics 2', prefix='1 2 3')`);
  // What is thrown away leaves no trace in the index either.
  await run(`insert into film_words(film_words, rank) values('secure-delete', 1)`);
  await run(`create trigger film_text_in after insert on film_text begin
    insert into film_words(rowid, words) values (new.id, new.words); end`);
  await run(`create trigger film_text_out after delete on film_text begin
    insert into film_words(film_words, rowid, words) values ('delete', old.id, old.words); end`);
  const forget = (of: string) => `begin delete from film_text where clip_id ${of}; end`;
  const ofStudent = 'in (select id from clip where student_id = new.id)';
  const ofStrike = (row: 'new' | 'old') =>
    `in (select clip_id from strike where id = ${row}.strike_id)`;
  const clip = 'student_id, file_name, view, intent, round, note, deleted_at';
  for (const [name, when, of] of [
    ['clip_said', `update of ${clip} on clip`, '= new.id'],
    ['student_said', 'update of name, class_group on student', ofStudent],
    ['strike_in', 'insert on strike', '= new.clip_id'],
    [
      'strike_said',
      'update of technique, side, note, removed_at, position on strike',
      '= new.clip_id',
    ],
    ['strike_out', 'delete on strike', '= old.clip_id'],
    ['finding_in', 'insert on finding', ofStrike('new')],
    ['finding_said', 'update of status on finding', ofStrike('new')],
    ['finding_out', 'delete on finding', ofStrike('old')],
  ] as const) {
    await run(`create trigger film_text_${name} after ${when} ${forget(of)}`);
  }
}
