import { LIBRARY_VERSION, libraryFileSchema } from '@sinew/core/judge/library/edits';
import { ownPagesOnly } from '@/app/api/local';
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

const wrong = (message: string) => Response.json({ message }, { status: 400 });

/** Takes a library from a file, all of it or nothing. */
export const PUT = ownPagesOnly(async (request) => {
  const by = new URL(request.url).searchParams.get('by')?.trim();
  if (!by) return wrong('Who takes it over? The history keeps the name.');
  const json: unknown = await request.json().catch(() => null);
  const file = libraryFileSchema.safeParse(json);
  if (!file.success) {
    const [issue] = file.error.issues;
    return wrong(
      `This is not a library of Sinew’s: ${issue!.path.join('.') || 'the file'}: ${issue!.message}. Nothing was changed.`,
    );
  }
  try {
    await changeLibrary(await database(), by.slice(0, 60), { kind: 'all', edits: file.data.edits });
    await measureAllLater();
  } catch (error) {
    return wrong(
      `The library does not fit together: ${error instanceof Error ? error.message : 'unknown'}. Nothing was changed.`,
    );
  }
  return Response.json({ message: 'taken over' });
});
