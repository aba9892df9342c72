/** Every question of the pages that is answered with JSON. The routes check what is sent by the same. */
import { z } from 'zod';
import { clipDocumentSchema } from '@sinew/core/analysis/clipDocument';
import { offsetSchema } from '@sinew/core/analysis/clipFile';
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import { setFindingSchema } from '@sinew/core/judge/fault/findingSchema';
import { wornBandsSchema } from '@sinew/core/observe/band/band';
import { bandTurnsSchema } from '@sinew/core/observe/band/bandTurns';
import { surveySchema } from '@sinew/core/observe/take/survey';
import { endpoint } from './endpoint';
import { jobSchema, requestSchema } from './job';
import { saidPiece } from './said';
import { talkFilm } from './talkFilm';

const ofClip = (what: string) => (clipId: string) =>
  `/api/clips/${encodeURIComponent(clipId)}/${what}`;
const nothing = z.object({});

const clipSchema = z.object({
  id: z.string(),
  studentId: z.string(),
  fileName: z.string(),
  sha256: z.string(),
  mimeType: z.string(),
  bytes: z.number(),
  view: z.enum(VIEWS),
  captureRate: z.number().nullable(),
  width: z.number(),
  height: z.number(),
  frameTimes: z.array(z.number()),
  createdAt: z.string(),
  isPurged: z.boolean(),
});

/** What is set on a bench, and the revision it was made from. */
const savedBenchSchema = z.object({
  revision: z.number().int().nonnegative(),
  document: clipDocumentSchema,
});

export const STUDENTS = endpoint({
  method: 'GET',
  path: () => '/api/students',
  sends: null,
  answers: z.array(z.object({ id: z.string(), name: z.string(), classGroup: z.string() })),
});

const workerSchema = z.object({ worker: z.string().min(8).max(40) });

/** One browser at a time looks for the body in a clip. */
export const TAKE_LEASE = endpoint({
  method: 'POST',
  path: ofClip('lease'),
  sends: workerSchema,
  answers: z.object({ isYours: z.boolean() }),
});

export const END_LEASE = endpoint({
  method: 'DELETE',
  path: ofClip('lease'),
  sends: workerSchema,
  answers: nothing,
});

/** Whether the gym's machine makes films readable that this browser does not play. */
export const CAN_MAKE_READABLE = endpoint({
  method: 'GET',
  path: () => '/api/readable',
  sends: null,
  answers: z.object({ isAble: z.boolean() }),
});

/** Bytes as text; of a review of thirty seconds there are some ten million. */
const inText = z.base64().max(40_000_000).nullable();

/** A link by which a student reads their lesson on their own phone. */
export const MAKE_LESSON_LINK = endpoint({
  method: 'POST',
  path: (studentId: string) => `/api/students/${encodeURIComponent(studentId)}/lessons`,
  sends: z.object({
    clipId: z.string().min(1).max(60).nullable(),
    picture: inText,
    film: inText,
    said: z.array(saidPiece).max(50),
  }),
  answers: z.object({ url: z.string(), endsOn: z.string() }),
});

/** Delete what was said over a strike. */
export const FORGET_TALK = endpoint({
  method: 'DELETE',
  path: (clipId: string, strikeId: string) => talkFilm({ clipId, strikeId }),
  sends: null,
  answers: nothing,
});

export const END_LESSON_LINKS = endpoint({
  method: 'DELETE',
  path: (studentId: string) => `/api/students/${encodeURIComponent(studentId)}/lessons`,
  sends: null,
  answers: nothing,
});

/** A film has been sent to its end. */
export const FILM_SENT = endpoint({
  method: 'POST',
  path: (uploadId: string) => `/api/uploads/${encodeURIComponent(uploadId)}/done`,
  sends: z.object({
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
    student: z.string().min(1).max(60),
  }),
  answers: z.object({ id: z.string(), isKnown: z.boolean() }),
});

/** A consent given at the phone, there and then. */
export const CONSENT_HERE = endpoint({
  method: 'POST',
  path: () => '/api/phone/consents',
  sends: z.object({
    /** Made by the page, so that a consent sent twice is kept once. */
    key: z.string().regex(/^[\w-]{8,40}$/),
    studentId: z.string().min(1).max(60),
    givenBy: z.enum(['student', 'guardian']),
    name: z.string().trim().min(1).max(80),
  }),
  answers: nothing,
});

export const CLIP_FACTS = endpoint({
  method: 'GET',
  path: ofClip('facts'),
  sends: null,
  answers: z.object({
    clip: clipSchema,
    bench: savedBenchSchema,
    stance: z.enum(['orthodox', 'southpaw']),
    /** The bands that the student has. */
    worn: wornBandsSchema,
  }),
});

export const BENCH = endpoint({
  method: 'GET',
  path: ofClip('bench'),
  sends: null,
  answers: savedBenchSchema.extend({
    /** Who saved it last, and when, ISO 8601; null where that is not known. */
    saved: z.object({ by: z.string(), at: z.string() }).nullable(),
  }),
});

export const SAVE_BENCH = endpoint({
  method: 'PUT',
  path: ofClip('bench'),
  sends: savedBenchSchema,
  answers: z.object({ revision: z.number().int().nonnegative() }),
});

export const SECOND_VIEW = endpoint({
  method: 'GET',
  path: ofClip('second'),
  sends: null,
  answers: z.object({ clip: clipSchema, bench: savedBenchSchema, offset: offsetSchema }).nullable(),
});

export const JOIN = endpoint({
  method: 'PUT',
  path: ofClip('second'),
  sends: z.object({ clip: z.string().min(1), offset: offsetSchema }),
  answers: nothing,
});

export const PART = endpoint({
  method: 'DELETE',
  path: ofClip('second'),
  sends: null,
  answers: nothing,
});

export const KEEP_SERIES = endpoint({
  method: 'PUT',
  path: ofClip('series'),
  sends: z.object({
    fileName: z.string().trim().min(1).max(255),
    begins: z.number().finite().min(-1e5).max(1e5),
    /** The text of a track file. */
    track: z.string(),
  }),
  /** Null where the points took the place of what the tracker had seen. */
  answers: z.object({
    series: z.object({ fileName: z.string(), begins: z.number(), track: z.string() }).nullable(),
  }),
});

export const DROP_SERIES = endpoint({
  method: 'DELETE',
  path: ofClip('series'),
  sends: null,
  answers: nothing,
});

export const SURVEY = endpoint({
  method: 'GET',
  path: ofClip('survey'),
  sends: null,
  answers: surveySchema.nullable(),
});

export const KEEP_SURVEY = endpoint({
  method: 'PUT',
  path: ofClip('survey'),
  sends: surveySchema,
  answers: nothing,
});

export const BANDS_READ = endpoint({
  method: 'GET',
  path: ofClip('bands'),
  sends: null,
  answers: bandTurnsSchema.nullable(),
});

export const KEEP_BANDS = endpoint({
  method: 'PUT',
  path: ofClip('bands'),
  sends: bandTurnsSchema,
  answers: nothing,
});

export const OPEN_JOBS = endpoint({
  method: 'GET',
  path: () => '/api/tracking',
  sends: null,
  answers: z.array(jobSchema),
});

export const JOB = endpoint({
  method: 'GET',
  path: ofClip('tracking'),
  sends: null,
  answers: jobSchema.nullable(),
});

export const CHANGE_JOB = endpoint({
  method: 'PUT',
  path: ofClip('tracking'),
  sends: requestSchema,
  answers: nothing,
});

export const DROP_JOB = endpoint({
  method: 'DELETE',
  path: ofClip('tracking'),
  sends: null,
  answers: nothing,
});

export const SET_REPORT = endpoint({
  method: 'GET',
  path: (strikeId: string) => `/api/strikes/${encodeURIComponent(strikeId)}/set`,
  sends: null,
  answers: z.object({
    strikes: z.array(z.object({ id: z.string(), frame: z.number().nullable() })),
    findings: z.array(setFindingSchema),
    isProvisional: z.boolean(),
    leftOut: z.number().int().nonnegative(),
  }),
});

export const TAKE_LIBRARY = endpoint({
  method: 'PUT',
  path: (by: string) => `/api/library?by=${encodeURIComponent(by)}`,
  /** A library's file, as it was read. */
  sends: z.unknown(),
  answers: nothing,
});

const counts = { students: z.number(), clips: z.number() };

/** What a gym's file holds, or what was taken over of it. */
export const gymFileAnswer = z.union([
  z.object({
    checked: z.object({
      gym: z.string(),
      madeAt: z.string(),
      ...counts,
      strikes: z.number(),
    }),
  }),
  z.object({ imported: z.object({ added: z.object(counts), present: z.object(counts) }) }),
]);
