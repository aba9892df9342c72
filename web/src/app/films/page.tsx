import { z } from 'zod';
import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';
import { FILM_ORDERS, findFilms } from '@/data/clip/findFilms';
import { database } from '@/data/database/database';
import { FilmsScreen } from '@/screens/films/FilmsScreen';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Films' };

const PAGE = 30;

/** Whatever else stands in the address counts as not asked. */
const askedSchema = z.object({
  words: z.string().max(200).catch(''),
  technique: z
    .string()
    .refine((id) => TECHNIQUES.some((one) => one.id === id))
    .nullable()
    .catch(null),
  order: z.enum(FILM_ORDERS).catch('newest'),
  pages: z.coerce.number().int().min(1).max(1000).catch(1),
});

export default async function FilmsPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { words, technique, order, pages } = askedSchema.parse(await searchParams);
  const asked = { words, technique, order };
  const found = await findFilms(await database(), { ...asked, most: pages * PAGE });
  return <FilmsScreen asked={asked} pages={pages} {...found} />;
}
