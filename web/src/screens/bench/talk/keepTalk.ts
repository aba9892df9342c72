/** What a coach has said over a strike, kept with it: at once, or when the bench has been left in the middle of it. */
import { toast } from 'sonner';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { askBytes, wordsOf } from '@/api/client';
import { talkFilm } from '@/api/talkFilm';

export interface Said {
  readonly film: Blob;
  readonly seconds: number;
}

/** The strike that is talked over, as it was when it began. */
export interface About {
  readonly clipId: string;
  readonly strikeId: string;
  readonly technique: string;
  /** A strike that was just marked is there before what was said over it. */
  readonly flush: () => Promise<unknown>;
  readonly toCard: () => void;
}

const wordsFor = ({ technique }: About) =>
  `what you said of this ${techniqueById(technique).name.toLowerCase()}`;
const cardOf = ({ toCard }: About) => ({ label: 'The card', onClick: toCard });

/**
 * @returns null when it is kept; in words for the coach when something was said before, which gives way only where
 *   it may
 * @throws Error in words for the coach when it could not be kept
 */
export async function keepTalk(
  about: About,
  { film, seconds }: Said,
  mayReplace: boolean,
): Promise<string | null> {
  await about.flush();
  const address = `${talkFilm(about)}?seconds=${seconds.toFixed(2)}`;
  try {
    await askBytes(mayReplace ? `${address}&replace` : address, { method: 'PUT', body: film });
    return null;
  } catch (error) {
    if (error instanceof Problem && error.code === 'conflict') return error.message;
    throw error;
  }
}

export const sayKept = (about: About) =>
  toast(`Kept: ${wordsFor(about)}.`, { action: cardOf(about) });

/** Whoever goes elsewhere while talking, or before it is decided on, loses nothing. */
export async function keepElsewhere(about: About, said: Said, mayReplace = false): Promise<void> {
  const ask = (why: string, label: string, replaces: boolean) =>
    toast(`You left the bench, and ${wordsFor(about)} is not kept yet. ${why}`, {
      duration: Infinity,
      action: { label, onClick: () => void keepElsewhere(about, said, replaces) },
    });
  try {
    const rival = await keepTalk(about, said, mayReplace);
    if (rival !== null) ask(rival, 'Put it in its place', true);
    else toast(`You left the bench: ${wordsFor(about)} is kept.`, { action: cardOf(about) });
  } catch (error) {
    ask(wordsOf(error), 'Try again', mayReplace);
  }
}
