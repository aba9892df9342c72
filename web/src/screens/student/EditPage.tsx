import Link from 'next/link';
import type { Student } from '@/data/student/students';
import { TopBar } from '@/ui/topBar';
import { StudentForm } from './StudentForm';

/** The form on a page of its own; without a student it adds one. */
export function EditPage({ student }: { student: Student | null }) {
  return (
    <>
      <TopBar>
        <Link href="/" className="text-soft hover:underline">
          Floor
        </Link>
        <span className="font-semibold" aria-current="page">
          {student?.name ?? 'New student'}
        </span>
      </TopBar>
      <main className="mx-auto max-w-[1280px] px-8 pt-7 pb-16">
        <h1 className="mb-6 font-serif text-[2.6rem] leading-none">
          {student ? `Change ${student.name}` : 'A new student'}
        </h1>
        <StudentForm student={student} />
      </main>
    </>
  );
}
