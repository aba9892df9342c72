import { ownPagesOnly, there } from '@/app/api/answers';
import { database } from '@/data/database/database';
import { setReport } from '@/data/finding/judging';

interface Context {
  params: Promise<{ id: string }>;
}

/** The set that a strike belongs to, judged as one. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const report = await setReport(await database(), (await params).id);
  return Response.json(there(report, { happened: 'This strike is not there any more.' }));
});
