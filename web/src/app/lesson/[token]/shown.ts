/** What every address under a student's link shares: whose it is, and the same words for every reason why not. */
import { asPage } from '@/app/api/entry';
import { isOwnHost } from '@/app/api/ownHost';
import { servedFile } from '@/app/api/servedFile';
import { accessDb } from '@/data/access/accessDb';
import { isFilmThere, lessonBy, mediaPath, type LessonLink } from '@/data/access/lessons';
import { bytesAt, piecesOf } from '@/data/film/folderShelf';
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
    const bytes = (await isFilmThere(db, link)) ? await bytesAt(path) : null;
    if (bytes === null) return gone();
    const read = (from: number, to: number) => piecesOf(path, from, to);
    return servedFile(request, { read, bytes, type, etag: `${link.id}-${what}` });
  });

const gone = () =>
  asPage(
    plainPage(
      'This page is not there',
      '<p>Its time is over, or it was withdrawn. Ask your coach for a new one.</p>',
    ),
    404,
  );
