import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Asker } from '@/data/access/roles';

/** Every page of the phone: one line above, and everything large enough for a thumb. */
export function PhoneFrame({
  asker,
  back,
  children,
}: {
  asker: Asker;
  /** Where one step back leads; none on the first page. */
  back?: string;
  children: ReactNode;
}) {
  const isCoach = asker.role !== 'assistant';
  return (
    <div className="mx-auto min-h-dvh max-w-[40rem]">
      <header className="flex min-h-14 items-center gap-4 border-b border-ink px-4">
        {back ? (
          <Link href={back} className="-ml-2 inline-flex min-h-11 items-center px-2 font-semibold">
            ← Students
          </Link>
        ) : (
          <span className="font-serif text-xl font-semibold">Sinew</span>
        )}
        <span className="ml-auto max-w-36 truncate text-soft">{asker.name}</span>
        {isCoach ? (
          <Link href="/" className="inline-flex min-h-11 items-center underline underline-offset-4">
            Floor
          </Link>
        ) : asker.isByPhone ? (
          <Link
            href="/sign-in?to=/"
            prefetch={false}
            className="inline-flex min-h-11 items-center underline underline-offset-4"
          >
            Sign in
          </Link>
        ) : (
          <form method="post" action="/sign-out">
            <button type="submit" className="min-h-11 underline underline-offset-4">
              Sign out
            </button>
          </form>
        )}
      </header>
      <main className="px-4 pt-5 pb-16 text-[17px]">{children}</main>
    </div>
  );
}
