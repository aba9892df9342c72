/** What every address under a student's link shares: whose it is, and the same words for every reason why not. */
import { stat } from 'node:fs/promises';
import { asPage } from '@/app/api/entry';
import { isOwnHost } from '@/app/api/ownHost';
import { servedFile } from '@/app/api/servedFile';
import { accessDb } from '@/data/access/accessDb';
import { isFilmThere, lessonBy, mediaPath, type LessonLink } from '@/data/access/lessons';
import { database } from '@/data/database/database';
import { dataFolder } from '@/data/database/dataFolder';
import type { Db } from '@/data/database/db';
import type { Student } from '@/data/student/students';
import { plainPage } from '@/ui/plainPage';

export interface LessonContext {
  params: Promise<{ token: string }>;
}

interface Shown {
  readonly db: Db;
  readonly link: LessonLink;
  readonly student: Student;
}

/** Answers for whoever has the address of a link that works; nobody signs in for it. */
export const ofLesson =
  (handle: (request: Request, shown: Shown, token: string) => Promise<Response>) =>
  async (request: Request, { params }: LessonContext): Promise<Response> => {
    if (!isOwnHost(request)) return gone();
    const { token } = await params;
    const db = await database().catch(() => null);
    const found = db && (await lessonBy(await accessDb(), db, token));
    return found ? handle(request, { db, ...found }, token) : gone();
  };

/** A picture or a film of the lesson. */
export const servedMedia = (what: 'picture' | 'film', type: string) =>
  ofLesson(async (request, { db, link }) => {
    const path = mediaPath(dataFolder(), link, what);
    const file = (await isFilmThere(db, link)) ? await stat(path).catch(() => null) : null;
    return file
      ? servedFile(request, { path, bytes: file.size, type, etag: `${link.id}-${what}` })
      : gone();
  });

const gone = () =>
  asPage(
    plainPage(
      'This page is not there',
      '<p>Its time is over, or it was withdrawn. Ask your coach for a new one.</p>',
    ),
    404,
  );
