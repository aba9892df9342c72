import { notFound, redirect } from 'next/navigation';
import { wornOn } from '@sinew/core/observe/band/band';
import { deeds } from '@/data/access/deeds';
import { loadBench } from '@/data/bench/bench';
import { cameraSetups } from '@/data/gym/cameraSetups';
import { clipById, clipSummaries } from '@/data/clip/clips';
import { database } from '@/data/database/database';
import { activeCues, decisionsOf } from '@/data/finding/findings';
import { libraryOf } from '@/data/gym/library';
import { studentById } from '@/data/student/students';
import { clipFiles } from '@/data/film/clipFilesHere';
import { readableState } from '@/data/film/readable';
import { surveyOf } from '@/data/clip/surveys';
import { bandTurnsOf } from '@/data/clip/bandTurns';
import { seriesOf } from '@/data/clip/series';
import { jobOf } from '@/data/clip/trackings';
import { secondViewOf } from '@/data/clip/viewPairs';
import { BeingMade } from '@/screens/bench/BeingMade';
import { Bench } from '@/screens/bench/Bench';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Bench' };

interface Props {
  params: Promise<{ clipId: string }>;
  searchParams: Promise<{ frame?: string; strike?: string }>;
}

export default async function BenchPage({ params, searchParams }: Props) {
  const { clipId } = await params;
  const query = await searchParams;
  const db = await database();
  const [clip, saved] = await Promise.all([clipById(db, clipId), loadBench(db, clipId)]);
  const student = clip && (await studentById(db, clip.studentId));
  if (!clip || !saved || !student) notFound();
  // Of a film that is gone the numbers are left, and those stand in the ledger.
  if (clip.isPurged) redirect(`/students/${student.id}/ledger`);
  if ((await readableState(db, clipFiles(), clipId)) === 'being-made') {
    return <BeingMade clip={clip} studentName={student.name} />;
  }
  const [decisions, cues, survey, second, job, series, bands, setups, clips, library, done] =
    await Promise.all([
      decisionsOf(db, clipId),
      activeCues(db, clip.studentId),
      surveyOf(db, clipId),
      secondViewOf(db, clipId),
      jobOf(db, clipId),
      seriesOf(db, clipId),
      bandTurnsOf(db, clipId),
      cameraSetups(db),
      clipSummaries(db, clip.studentId),
      libraryOf(db),
      deeds(db, 8, clipId),
    ]);
  const { strikes } = saved.document;
  const named = strikes.find((one) => one.id === query.strike) ?? strikes[0];
  const usual = named?.marks.contact?.frame ?? named?.span?.from ?? 0;
  const asked = Number(query.frame ?? usual);
  const last = clip.frameTimes.length - 1;
  const frame = Number.isInteger(asked) ? Math.min(last, Math.max(0, asked)) : 0;
  // The strike that was asked for, else the one that the frame is in.
  const strike =
    strikes.find((one) => one.id === query.strike) ??
    strikes.find(({ span }) => span && frame >= span.from && frame <= span.to);
  return (
    <Bench
      key={clip.id}
      clip={{ ...clip, studentName: student.name }}
      student={{
        stance: student.stance,
        school: student.school,
        heightM: student.heightM,
        massKg: student.massKg,
      }}
      library={library}
      saved={saved}
      start={{ strikeId: strike?.id ?? null, frame }}
      decisions={decisions}
      cues={cues}
      survey={survey}
      second={second}
      job={job}
      series={series}
      worn={wornOn(student.bands)}
      bands={bands}
      setups={setups}
      others={clips.filter((one) => one.id !== clipId)}
      deeds={done}
    />
  );
}
