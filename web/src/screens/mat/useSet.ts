import { useEffect, useEffectEvent, useRef, useState } from 'react';
import PQueue from 'p-queue';
import type { AtTheMat } from '@sinew/core/analysis/atTheMat';
import {
  GLIMPSES,
  sayGlimpse,
  type Glimpse,
  type GlimpseId,
} from '@sinew/core/measure/measures/glimpse';
import { isAbsent } from '@sinew/core/foundation/reading/reading';
import { inManner } from '@/manner/manner';
import { GlimpseReader } from '@/tracking/glimpseReader';
import { hearHits } from '@/video/hearHits';
import type { RecentFilm } from '@/video/recentFilm';

/** One hit, as the set counts them. */
export interface HitOfSet {
  /** From 1; 0 where nothing was heard, and somebody wants to see the last moment all the same. */
  readonly number: number;
  /** Seconds of the take. */
  readonly at: number;
  /** When it was heard by the page's clock, milliseconds. */
  readonly heard: number;
}

/** What is said of a hit. */
export interface Told {
  readonly number: number;
  readonly sentence: string;
}

/** Seconds behind a hit that its replay still shows. */
export const SHOWN_AFTER = 0.4;
/** Frames come a moment after they were seen; after so many seconds nobody waits for them any more. */
const PATIENCE = 1.5;
const POLL = 40;

/**
 * The hits of a set while it is filmed: counted as they are heard, then there to be seen again, then read.
 *
 * @param film what is being recorded; null while nothing is
 * @param onTold called with what the first hit that can be read tells, and every later one
 */
export function useSet(
  stream: MediaStream | null,
  film: RecentFilm | null,
  about: AtTheMat,
  watched: GlimpseId,
  onTold: (sentence: string) => void,
) {
  const [count, setCount] = useState(0);
  const [last, setLast] = useState<HitOfSet | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const reader = useReader();
  const [queue] = useState(() => new PQueue({ concurrency: 1 }));

  const seen = useEffectEvent(async (hit: HitOfSet, of: RecentFilm) => {
    const looking = await reader.current;
    if (!looking || of !== film) return;
    const glimpse = await looking.read(of, hit.at, about).catch(() => null);
    if (!glimpse || of !== film) return;
    const sentence = inManner(sentenceOf(glimpse, watched));
    performance.measure('hit told', { start: hit.heard, end: performance.now() });
    setTold({ number: hit.number, sentence });
    onTold(sentence);
  });

  useEffect(() => {
    if (!stream || !film) return;
    let isCurrent = true;
    let number = 0;
    // A new set begins at nothing.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setCount(0);
    setLast(null);
    setTold(null);
    const stop = hearHits(stream, (heard) => {
      const hit = { number: ++number, at: film.timeAt(heard), heard };
      setCount(number);
      void untilFilmed(film, hit.at + SHOWN_AFTER).then(() => {
        if (!isCurrent || hit.number !== number) return;
        setLast(hit);
        // Of those that come while one is read only the last is worth it.
        queue.clear();
        void queue.add(() => seen(hit, film));
      });
    });
    return () => {
      isCurrent = false;
      stop();
    };
  }, [stream, film, queue]);

  const seeAgain = () => {
    if (!film) return;
    setLast({ number: 0, at: film.until - SHOWN_AFTER, heard: performance.now() });
  };
  return { count, last, told, seeAgain };
}

async function untilFilmed(film: RecentFilm, time: number): Promise<void> {
  const end = performance.now() + 1000 * (SHOWN_AFTER + PATIENCE);
  while (film.until < time && performance.now() < end) {
    await new Promise((resolve) => setTimeout(resolve, POLL));
  }
}

/** What is watched for, or what else could be seen of this hit. */
function sentenceOf(glimpse: Glimpse, watched: GlimpseId): string {
  const order = [watched, ...GLIMPSES.filter((id) => id !== watched)];
  const id = order.find((one) => !isAbsent(glimpse[one])) ?? watched;
  return sayGlimpse(id, glimpse[id]);
}

/** Whoever looks at bodies while this page is open. */
function useReader() {
  const reader = useRef<Promise<GlimpseReader | null> | null>(null);
  useEffect(() => {
    // A browser that cannot look at bodies still films, counts and shows.
    const starting = GlimpseReader.start().catch(() => null);
    reader.current = starting;
    return () => {
      reader.current = null;
      void starting.then((one) => one?.close());
    };
  }, []);
  return reader;
}
