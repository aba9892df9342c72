import { notFound } from 'next/navigation';
import { loadBench } from '@/data/bench/bench';
import { clipById } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { MarkAgain } from '@/screens/marking/MarkAgain';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Mark again' };

export default async function MarkAgainPage({ params }: { params: Promise<{ strikeId: string }> }) {
  const { strikeId } = await params;
  const db = await database();
  const row = await db
    .selectFrom('strike')
    .select('clip_id')
    .where('id', '=', strikeId)
    .executeTakeFirst();
  const [clip, bench] = row
    ? await Promise.all([clipById(db, row.clip_id), loadBench(db, row.clip_id)])
    : [null, null];
  const strike = bench?.document.strikes.find(({ id }) => id === strikeId);
  if (!clip || !strike || clip.isPurged) notFound();
  const last = clip.frameTimes.length - 1;
  return (
    <MarkAgain
      strikeId={strikeId}
      technique={strike.technique}
      clip={{ id: clip.id, width: clip.width, height: clip.height }}
      span={strike.span ?? { from: 0, to: last }}
    />
  );
}
