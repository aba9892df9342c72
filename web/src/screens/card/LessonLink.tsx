'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { toast } from 'sonner';
import { ask } from '@/api/client';
import { END_LESSON_LINKS, MAKE_LESSON_LINK } from '@/api/endpoints';
import type { SaidPiece } from '@/api/said';
import type { LessonLink as Link } from '@/data/access/lessons';
import { shortDay } from '@/manner/manner';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';
import { QrCode } from '@/ui/qrCode';
import { base64 } from './base64';

type State =
  | { readonly kind: 'idle'; readonly problem?: string }
  | { readonly kind: 'making' }
  | { readonly kind: 'made'; readonly url: string; readonly endsOn: string };

const inWords = (error: unknown) => (error instanceof Error ? error.message : String(error));

/** The same as a page on the gym's network, whose ticks the coach sees. */
export function LessonLink({
  studentId,
  clipId,
  media,
}: {
  studentId: string;
  /** Whose film the review was made of. */
  clipId: string | null;
  media: {
    readonly picture: Blob | null;
    readonly film: Blob | null;
    readonly said: readonly SaidPiece[];
  };
}) {
  const router = useRouter();
  const [state, setState] = useState<State>({ kind: 'idle' });
  const make = async () => {
    setState({ kind: 'making' });
    try {
      const { picture, film, said } = media;
      const made = await ask(MAKE_LESSON_LINK, [studentId], {
        clipId,
        picture: picture && (await base64(picture)),
        film: film && (await base64(film)),
        said: said.map(({ from, to, words }) => ({ from, to, words })),
      });
      setState({ kind: 'made', ...made });
      router.refresh();
    } catch (error) {
      setState({ kind: 'idle', problem: inWords(error) });
    }
  };
  if (state.kind === 'made') {
    return (
      <div className="mt-5 grid gap-5 sm:grid-cols-[12rem_1fr]">
        <div className="self-start border border-ink">
          <QrCode text={state.url} label="The address of this lesson" />
        </div>
        <div className="space-y-2">
          <p>
            The student’s phone, on the gym’s network, points its camera at it. Boxes that are
            ticked there stand in their <em>Work</em>.
          </p>
          <p className="font-mono text-sm wrap-anywhere select-all">{state.url}</p>
          <p className="text-sm text-soft">
            Whoever has this address sees this one card until {shortDay(state.endsOn)}. It is shown
            only now; make a new one whenever you like.
          </p>
        </div>
      </div>
    );
  }
  return (
    <div className="mt-4">
      <Button disabled={state.kind === 'making'} onClick={() => void make()}>
        {state.kind === 'making' ? 'Making the link…' : 'A link for their phone'}
      </Button>
      {state.kind === 'idle' && state.problem && (
        <p role="alert" className="mt-2 font-semibold text-now">
          {state.problem}
        </p>
      )}
    </div>
  );
}

/** Links that work, and one button that ends them. */
export function LinksInForce({ studentId, links }: { studentId: string; links: readonly Link[] }) {
  const router = useRouter();
  const [first] = links;
  if (!first) return null;
  const end = async () => {
    try {
      await ask(END_LESSON_LINKS, [studentId]);
      toast(links.length === 1 ? 'The link does not work any more.' : 'No link works any more.');
      router.refresh();
    } catch (error) {
      toast(inWords(error));
    }
  };
  return (
    <p className="mt-4 text-sm text-soft">
      {links.length === 1 ? 'A link works' : `${links.length} links work`} until{' '}
      {shortDay(
        links
          .map(({ endsOn }) => endsOn)
          .sort()
          .at(-1)!,
      )}
      ;{' '}
      {first.openedAt
        ? `the newest was first opened ${pastTime(first.openedAt)}`
        : 'the newest was not opened yet'}
      .
      <Button weight="quiet" className="ml-3 text-sm" onClick={() => void end()}>
        Withdraw {links.length === 1 ? 'the link' : 'the links'}
      </Button>
    </p>
  );
}
