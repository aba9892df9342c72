'use client';

import { Button } from '@/ui/button';

export default function ErrorPage({
  error,
  reset,
}: {
  error: Error & { digest?: string };
  reset: () => void;
}) {
  return (
    <main className="mx-auto max-w-[1280px] px-4 sm:px-8 pt-10">
      <h1 className="font-serif text-4xl">This screen could not be shown.</h1>
      <p className="mt-4 max-w-xl text-base">
        What was saved is safe. Try again; if it stays like this, restart Sinew, and look whether
        the gym’s database is sound. What Sinew has noted of it: {error.digest ?? error.message}
      </p>
      <div className="mt-5 flex flex-wrap items-center gap-5">
        <Button weight="main" onClick={reset}>
          Try again
        </Button>
        {/* Not a page of this application: it works when nothing else does. */}
        <a href="/recovery" className="font-semibold underline underline-offset-4">
          Is the database sound?
        </a>
      </div>
    </main>
  );
}
