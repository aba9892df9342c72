import { useEffect, useRef, useState } from 'react';
import { useCommands } from '@/ui/commands/registry';
import { otherPace, type Pace } from '@/ui/pace';
import { FROM, TO } from './stretch';

export interface Play {
  readonly isPlaying: boolean;
  setPlaying(isPlaying: boolean): void;
  readonly pace: Pace;
  setPace(pace: Pace): void;
}

/**
 * Both strikes side by side in time, round and round, with the keys that the bench has for it.
 *
 * @param time seconds from contact
 */
export function usePlay(time: number, setTime: (time: number) => void): Play {
  const [isPlaying, setPlaying] = useState(false);
  const [pace, setPace] = useState<Pace>(1 / 8);
  const now = useRef({ time, pace });
  useEffect(() => {
    now.current = { time, pace };
  }, [time, pace]);
  useEffect(() => {
    if (!isPlaying) return;
    let before = performance.now();
    let handle = requestAnimationFrame(function step(at: number) {
      const next = now.current.time + ((at - before) / 1000) * now.current.pace;
      before = at;
      now.current.time = next >= TO ? FROM : next;
      setTime(now.current.time);
      handle = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(handle);
  }, [isPlaying, setTime]);
  useCommands(() =>
    [
      {
        id: 'play',
        keys: [' '],
        words: 'play, stop',
        run: () => setPlaying((old) => !old),
      },
      { id: 'slower', keys: ['['], words: 'play slower', run: () => setPace(otherPace(pace, -1)) },
      { id: 'faster', keys: [']'], words: 'play faster', run: () => setPace(otherPace(pace, 1)) },
    ].map((one) => ({ ...one, group: 'Through the film' })),
  );
  return { isPlaying, setPlaying, pace, setPace };
}
