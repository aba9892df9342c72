/** What is said of a film as it is sent: in an address, or with its first piece. */
import { z } from 'zod';
import { Problem } from '@sinew/core/foundation/problem/problem';
import {
  azimuthSchema,
  captureRateSchema,
  clipDocumentSchema,
  purposeSchema,
} from '@sinew/core/analysis/clipDocument';
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import { MODELS, type Model } from '@/api/models';
import type { NewClip } from '@/data/clip/clips';

const asNumber = (missing: null | undefined) => (value: unknown) =>
  value === null ? missing : Number(value);

const schema = z.object({
  student: z.string().min(1),
  name: z.string().min(1).max(255),
  view: z.enum(VIEWS),
  azimuth: z.preprocess(asNumber(undefined), azimuthSchema.optional()),
  rate: z.preprocess(asNumber(null), captureRateSchema),
  purpose: purposeSchema.nullable(),
  intent: clipDocumentSchema.shape.intent,
  round: z.preprocess(asNumber(undefined), clipDocumentSchema.shape.round),
  /** The body is to be found in it at once. */
  track: z.enum(MODELS).nullable(),
});

export type AboutFilm = Omit<NewClip, 'stream' | 'announced' | 'sha256'> & {
  readonly track: Model | null;
};

/**
 * @param said by name
 * @throws Problem `not-understood`
 */
export function aboutFilm(
  said: Pick<ReadonlyMap<string, string | null>, 'get' | 'has'>,
): AboutFilm {
  const text = (name: string) => said.get(name) ?? null;
  const asked = schema.safeParse({
    student: text('student'),
    name: text('name'),
    view: text('view'),
    azimuth: text('azimuth'),
    rate: text('rate'),
    track: text('track'),
    intent: text('intent') ?? undefined,
    round: text('round'),
    purpose: said.has('technique')
      ? { technique: text('technique'), question: text('question') }
      : null,
  });
  if (!asked.success) {
    throw new Problem('not-understood', {
      happened: 'Student, file name or view is missing.',
      safe: 'Nothing was kept.',
    });
  }
  const { student, name, view, azimuth, rate, purpose, intent, round, track } = asked.data;
  return {
    studentId: student,
    fileName: name,
    view,
    ...(azimuth !== undefined && { azimuth }),
    captureRate: rate,
    purpose,
    ...(intent && { intent }),
    ...(round && { round }),
    track,
  };
}
