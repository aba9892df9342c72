import { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import {
  clipDocumentSchema,
  captureRateSchema,
  purposeSchema,
} from '@sinew/core/analysis/clipDocument';
import { clipFiles } from '@/data/clip/clipFilesHere';
import { addClip } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { changeJob, jobOf } from '@/data/clip/trackings';
import { MODELS } from '@/api/models';
import { ownPagesOnly } from '@/app/api/answers';

const query = z.object({
  student: z.string().min(1),
  name: z.string().min(1).max(255),
  view: z.enum(VIEWS),
  rate: z.preprocess((value) => (value === null ? null : Number(value)), captureRateSchema),
  purpose: purposeSchema.nullable(),
  intent: clipDocumentSchema.shape.intent,
  round: z.preprocess(
    (value) => (value === null ? undefined : Number(value)),
    clipDocumentSchema.shape.round,
  ),
  /** The body is to be found in it at once. */
  track: z.enum(MODELS).nullable(),
});

/** Take in a clip: the body is the file itself, what is known about it stands in the query. */
export const POST = ownPagesOnly(async (request) => {
  const params = new URL(request.url).searchParams;
  const asked = query.safeParse({
    student: params.get('student'),
    name: params.get('name'),
    view: params.get('view'),
    rate: params.get('rate'),
    track: params.get('track'),
    intent: params.get('intent') ?? undefined,
    round: params.get('round'),
    purpose: params.has('technique')
      ? { technique: params.get('technique'), question: params.get('question') }
      : null,
  });
  if (!asked.success || !request.body) {
    throw new Problem('not-understood', {
      happened: 'Student, file name, view or file is missing.',
      safe: 'Nothing was kept.',
    });
  }
  const length = request.headers.get('content-length');
  const db = await database();
  const { track, intent, round, rate, ...about } = asked.data;
  const clip = await addClip(db, clipFiles(), {
    studentId: about.student,
    fileName: about.name,
    view: about.view,
    captureRate: rate,
    purpose: about.purpose,
    ...(intent && { intent }),
    ...(round && { round }),
    stream: request.body,
    announced: length === null ? null : Number(length),
  });
  if (track && !(await jobOf(db, clip.id))) {
    await changeJob(db, clip.id, { kind: 'start', model: track, person: null });
  }
  return Response.json(clip, { status: clip.isKnown ? 200 : 201 });
});
