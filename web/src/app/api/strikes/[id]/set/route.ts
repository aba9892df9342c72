import { ownPagesOnly } from '@/app/api/local';
import { database } from '@/data/database/database';
import { setReport } from '@/data/finding/judging';

interface Context {
  params: Promise<{ id: string }>;
}

/** Every strike of this one's kind in its clip, judged as one. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const report = await setReport(await database(), (await params).id);
  if (!report) {
    return Response.json({ message: 'This strike is not there any more.' }, { status: 404 });
  }
  return Response.json(report);
});
