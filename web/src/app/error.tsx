'use client';

import { Button } from '@/ui/button';

export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-[1280px] px-8 pt-10">
      <h1 className="font-serif text-4xl">This screen could not be shown.</h1>
      <p className="mt-4 max-w-xl text-base">
        What was saved is safe. Try again; if it stays like this, restart Sinew. The message was:{' '}
        {error.message || 'none'}
      </p>
      <Button weight="main" className="mt-5" onClick={reset}>
        Try again
      </Button>
    </main>
  );
}
