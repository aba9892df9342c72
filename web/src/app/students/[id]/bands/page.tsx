import { notFound } from 'next/navigation';
import { database } from '@/data/database/database';
import { studentById } from '@/data/student/students';
import { BandsScreen } from '@/screens/bands/BandsScreen';
import { PAPERS } from '@/screens/bands/paper';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Bands' };

interface Props {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ paper?: string; sheets?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const { id } = await params;
  const query = await searchParams;
  const student = await studentById(await database(), id);
  if (!student) notFound();
  const paper = PAPERS.find((one) => one.id === query.paper) ?? PAPERS[0];
  const sheets = /^[3-6]$/.test(query.sheets ?? '') ? Number(query.sheets) : null;
  return <BandsScreen student={student} paper={paper} sheets={sheets} />;
}
