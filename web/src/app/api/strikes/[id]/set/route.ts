import { ownPagesOnly, there } from '@/app/api/answers';
import { ask } from '@/data/threads/ask';

interface Context {
  params: Promise<{ id: string }>;
}

/** The set that a strike belongs to, judged as one. */
export const GET = ownPagesOnly(async (_, { params }: Context) => {
  const report = await ask('setReport', (await params).id);
  return Response.json(there(report, { happened: 'This strike is not there any more.' }));
});
