import { techniqueById, TECHNIQUES, VIEWS } from '@sinew/core/foundation/technique/techniques';
import { bestPlace, questionsFor } from '@sinew/core/foundation/technique/questions';
import { BANDS, wornOn } from '@sinew/core/observe/band/band';
import { database } from '@/data/database/database';
import { lastFilmOf } from '@/data/clip/clips';
import { activeCues } from '@/data/finding/findings';
import { allStudents } from '@/data/student/students';
import { Capture } from '@/screens/capture/Capture';
import { ChooseStudent } from '@/screens/capture/ChooseStudent';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Film' };

interface Props {
  searchParams: Promise<{
    student?: string;
    technique?: string;
    question?: string;
    view?: string;
    retest?: string;
  }>;
}

export default async function CapturePage({ searchParams }: Props) {
  const query = await searchParams;
  const db = await database();
  const students = (await allStudents(db)).filter((one) => !one.isArchived);
  const student = students.find((one) => one.id === query.student);
  if (!student?.consent) return <ChooseStudent students={students} asked={student ?? null} />;
  const cues = await activeCues(db, student.id);
  const named = TECHNIQUES.find((one) => one.id === query.technique)?.id;
  const technique = techniqueById(named ?? cues[0]?.technique ?? 'cross');
  const questions = questionsFor(technique);
  const { bands, heightM } = student;
  const hasBands = Object.keys(wornOn(bands)).length === BANDS.length;
  const before = query.retest ? await lastFilmOf(db, student.id, technique.id) : null;
  const asked = query.question ?? before?.question;
  const question = questions.find((one) => one.id === asked) ?? questions[0]!;
  const view = VIEWS.find((one) => one === (query.view ?? before?.view));
  const place = view ? { view } : bestPlace(question, technique, hasBands);
  return (
    <Capture
      student={{
        id: student.id,
        name: student.name,
        heightM,
        hasBands,
        isSouthpaw: student.stance === 'southpaw',
      }}
      start={{
        technique: technique.id,
        question: question.id,
        ...place,
        ...(before?.intent && { intent: before.intent }),
      }}
      before={before}
    />
  );
}
