'use client';

import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { FORGET_TALK } from '@/api/endpoints';
import { ask, wordsOf } from '@/api/client';
import type { Talk } from '@/data/clip/talks';
import { pastTime } from '@/data/database/today';
import { Button } from '@/ui/button';
import { talkFilm } from '@/api/talkFilm';
import { inMinutes } from '@/ui/inMinutes';

/** What a coach said over the strike, to be heard again. */
export function Spoken({ talk }: { talk: Talk }) {
  const router = useRouter();
  const forget = async () => {
    try {
      await ask(FORGET_TALK, [talk.clipId, talk.strikeId]);
      toast('What was said is deleted.');
      router.refresh();
    } catch (error) {
      toast(wordsOf(error));
    }
  };
  return (
    <figure className="border-b border-rule py-5 print:hidden">
      <video
        controls
        playsInline
        preload="metadata"
        src={`${talkFilm(talk)}#t=0.5`}
        aria-label="What was said over it"
        className="w-full bg-shade"
      />
      <figcaption className="mt-2 flex items-baseline gap-4">
        <span>
          <bdi>{talk.madeBy}</bdi> talks over it, {inMinutes(talk.seconds)}, {pastTime(talk.madeAt)}
          .
        </span>
        <Button weight="quiet" className="ml-auto !min-h-6 text-sm" onClick={() => void forget()}>
          Delete
        </Button>
      </figcaption>
    </figure>
  );
}
