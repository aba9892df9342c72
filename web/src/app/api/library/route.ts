import { LIBRARY_VERSION, libraryFileSchema } from '@sinew/core/judge/library/edits';
import { firstWrong, Problem } from '@sinew/core/foundation/problem/problem';
import { ZodError } from 'zod';
import { done, ownPagesOnly } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { measureAllLater } from '@/data/finding/measureLater';
import { changeLibrary, editsOf } from '@/data/gym/library';

/** The gym's library as a file. */
export const GET = ownPagesOnly(async () => {
  const edits = await editsOf(await database());
  return new Response(
    JSON.stringify({ format: 'sinew-library', version: LIBRARY_VERSION, edits }, null, 2),
    {
      headers: {
        'content-type': 'application/json',
        'content-disposition': 'attachment; filename="sinew-library.json"',
      },
    },
  );
});

/** Takes a library from a file, all of it or nothing. */
export const PUT = ownPagesOnly(async (request, _, asker) => {
  const typed = new URL(request.url).searchParams.get('by')?.trim();
  const by = asker.personId === null ? typed : asker.name;
  if (!by) {
    throw new Problem('not-understood', {
      happened: 'Who takes it over? The history keeps the name.',
      safe: NOTHING_CHANGED,
    });
  }
  const file = libraryFileSchema.safeParse(await request.json().catch(() => null));
  if (!file.success) {
    throw new Problem('not-understood', {
      happened: `This is not a library of Sinew’s: ${firstWrong(file.error)}`,
      safe: NOTHING_CHANGED,
    });
  }
  try {
    await changeLibrary(await database(), by.slice(0, 60), { kind: 'all', edits: file.data.edits });
  } catch (error) {
    if (!(error instanceof Problem || error instanceof ZodError)) throw error;
    const why = error instanceof ZodError ? firstWrong(error) : error.message;
    throw new Problem('not-understood', {
      happened: `The library does not fit together: ${why}`,
      safe: NOTHING_CHANGED,
    });
  }
  await measureAllLater();
  return done();
});

const NOTHING_CHANGED = 'Nothing was changed.';
