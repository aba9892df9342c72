import { ask } from '../api/client';
import { KEEP_SURVEY } from '../api/endpoints';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Progress } from './progress';
import type { Survey } from '@sinew/core/observe/take/survey';
import { survey as begin, type Surveying } from './surveyor';

export type SurveyState =
  | { readonly kind: 'running'; readonly progress: Progress }
  | { readonly kind: 'done'; readonly survey: Survey }
  | { readonly kind: 'failed'; readonly message: string }
  | { readonly kind: 'cancelled' };

const START: SurveyState = { kind: 'running', progress: { share: 0, left: null } };

/**
 * Goes through a film once in the background, as soon as it is known.
 *
 * @param film a file, or the address of a clip; null while there is none
 * @param count how many frames it has
 * @param known what an earlier pass has found; then nothing is done
 */
export function useSurvey(
  film: File | string | null,
  count: number,
  known: Survey | null = null,
): { state: SurveyState; cancel: () => void; again: () => void } {
  const [state, setState] = useState<SurveyState>(known ? { kind: 'done', survey: known } : START);
  const running = useRef<Surveying | null>(null);
  const [attempt, setAttempt] = useState(0);

  useEffect(() => {
    if (known || film === null || count === 0) return;
    let isCurrent = true;
    const work = begin(film, count, (progress) => {
      if (isCurrent) setState({ kind: 'running', progress });
    });
    running.current = work;
    work.done.then(
      (survey) => {
        if (isCurrent) setState(survey ? { kind: 'done', survey } : { kind: 'cancelled' });
      },
      (error: unknown) => {
        const message = error instanceof Error ? error.message : String(error);
        if (isCurrent) setState({ kind: 'failed', message });
      },
    );
    return () => {
      isCurrent = false;
      work.cancel();
    };
  }, [film, count, known, attempt]);

  const again = useCallback(() => {
    setState(START);
    setAttempt((now) => now + 1);
  }, []);
  return { state, cancel: useCallback(() => running.current?.cancel(), []), again };
}

/** Keep a survey with its clip; what is lost here is only work that can be done again. */
export async function sendSurvey(clipId: string, survey: Survey): Promise<void> {
  await ask(KEEP_SURVEY, [clipId], survey).catch(() => undefined);
}
