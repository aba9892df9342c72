import Link from 'next/link';
import { LookAgainOnNews } from '@/ui/newsLine';
import { TopBar } from '@/ui/topBar';

/** In the place of the bench while the gym's machine writes a film anew that not every browser plays. */
export function BeingMade({
  clip,
  studentName,
}: {
  clip: { readonly studentId: string; readonly fileName: string };
  studentName: string;
}) {
  return (
    <>
      <TopBar>
        <Link href={`/students/${clip.studentId}`} className="font-semibold hover:underline">
          {studentName}
        </Link>
      </TopBar>
      <LookAgainOnNews studentId={clip.studentId} />
      <main className="mx-auto max-w-[1280px] px-4 pt-10 sm:px-8">
        <h1 className="font-serif text-[2.2rem] leading-tight">
          {clip.fileName} is being made readable.
        </h1>
        <p role="status" className="mt-4 max-w-xl text-base">
          A phone has coded it in a way that not every browser plays. This machine writes it anew,
          frame by frame at the same instants, and keeps the original. That takes a few times its
          length; the bench opens by itself, and the body is looked for after that.
        </p>
      </main>
    </>
  );
}
