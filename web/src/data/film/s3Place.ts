/** Which store the films are in, by the environment of the server. */
import { z } from 'zod';

const placeSchema = z.object({
  endpoint: z.url({ protocol: /^https?$/ }),
  bucket: z.string().min(3).max(63),
  region: z.string().min(1),
  /** Of several gyms in one bucket each has its own. */
  prefix: z
    .string()
    .regex(/^[\w./-]*$/)
    .transform((text) => (text === '' || text.endsWith('/') ? text : `${text}/`)),
  key: z.string().min(1),
  secret: z.string().min(1),
});

export type S3Place = Readonly<z.infer<typeof placeSchema>>;

const NAMES = {
  endpoint: 'SINEW_S3_ENDPOINT',
  bucket: 'SINEW_S3_BUCKET',
  region: 'SINEW_S3_REGION',
  prefix: 'SINEW_S3_PREFIX',
  key: 'SINEW_S3_KEY',
  secret: 'SINEW_S3_SECRET',
} as const;

/**
 * @returns null when films are to lie on this machine, as they do unless somebody says otherwise
 * @throws Error that says what is missing or wrong; half a setting must not put films in two places
 */
export function s3Place(env: Readonly<Record<string, string | undefined>>): S3Place | null {
  const asked = Object.entries(NAMES).map(([name, variable]) => [name, env[variable]] as const);
  if (asked.every(([, value]) => value === undefined || value === '')) return null;
  const given = Object.fromEntries(asked.filter(([, value]) => value !== undefined));
  const read = placeSchema.safeParse({ region: 'us-east-1', prefix: 'clips/', ...given });
  if (read.success) return read.data;
  const wrong = read.error.issues.map(({ path }) => NAMES[path[0] as keyof typeof NAMES]);
  throw new Error(
    `The store of films is not set up: look at ${[...new Set(wrong)].join(', ')}. Nothing was changed.`,
  );
}
