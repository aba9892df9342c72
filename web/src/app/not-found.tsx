import Link from 'next/link';
import { TopBar } from '@/ui/topBar';

export default function NotFound() {
  return (
    <>
      <TopBar />
      <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-10">
        <h1 className="font-serif text-4xl">Nothing is kept under this address.</h1>
        <p className="mt-4 text-base">
          The student or clip may have been deleted.{' '}
          <Link href="/" className="underline underline-offset-4">
            Back to the Floor
          </Link>
        </p>
      </main>
    </>
  );
}
