/** Films of all students found by what is said of them, in SQLite's own full-text index. */
import { beforeEach, describe, expect, it } from 'vitest';
import { loadBench, saveBench } from '@/data/bench/bench';
import { addClip } from '@/data/clip/clips';
import { findFilms, matchOf, tagsOf, type FilmsAsked } from '@/data/clip/findFilms';
import { acceptFinding } from '@/data/finding/findings';
import { setTrashed } from '@/data/maintenance/trash';
import { film, markedGym, newClip, student, type MarkedClip, type TestGym } from './support';

let gym: TestGym;
let marked: MarkedClip;
let other: string;

beforeEach(async () => {
  ({ gym, marked } = await markedGym());
  const who = await student(gym);
  await gym.db.updateTable('student').set({ name: 'Márton Ilves' }).where('id', '=', who).execute();
  const clip = newClip(who, film('cross-jammed.mp4'), { fileName: 'mats.mp4', view: 'above' });
  ({ id: other } = await addClip(gym.db, gym.files, clip));
});

const found = async (words: string, change: Partial<FilmsAsked> = {}) => {
  const asked = { words, technique: null, order: 'oldest', most: 30, ...change } as const;
  return (await findFilms(gym.db, asked)).films.map(({ id }) => id);
};
const note = async (clipId: string, ofFilm: string, ofStrike?: string) => {
  const saved = (await loadBench(gym.db, clipId))!;
  const strikes = saved.document.strikes.map((one) => ({ ...one, note: ofStrike }));
  await saveBench(gym.db, clipId, {
    ...saved,
    document: { ...saved.document, note: ofFilm, strikes },
  });
};

describe('a film is found', () => {
  it('by whose it is, what it shows and from where, words begun, in any order, accents aside', async () => {
    expect(await found('')).toEqual([marked.clipId, other]);
    expect(await found('marton')).toEqual([other]);
    expect(await found('ABO ilv')).toEqual([other]);
    expect(await found('cros')).toEqual([marked.clipId]);
    expect(await found('cross ilves')).toEqual([]);
    expect(await found('', { technique: 'cross' })).toEqual([marked.clipId]);
    expect(await found('', { order: 'student' })).toEqual([other, marked.clipId]);
    expect(await found('', { most: 1 })).toEqual([marked.clipId]);
  });

  it('by the coach’s words on it and on its strikes, as soon as they are saved and as long as they stand', async () => {
    expect(await found('knee')).toEqual([]);
    await note(marked.clipId, 'left knee sore #Sparring', 'breath held');
    expect(await found('sore #sparring')).toEqual([marked.clipId]);
    expect(await found('held')).toEqual([marked.clipId]);
    const asked = { words: 'knee', technique: null, order: 'newest', most: 30 } as const;
    const { films, tags, total } = await findFilms(gym.db, asked);
    expect(films[0]!.notes).toEqual(['left knee sore #Sparring', 'breath held']);
    expect([tags, total]).toEqual([['sparring'], 1]);
    await note(marked.clipId, 'rested');
    expect(await found('knee')).toEqual([]);
    expect(await found('held')).toEqual([]);
  });

  it('by the leak that is worked on, and by a name as it is now', async () => {
    expect(await found('all at once')).toEqual([]);
    await acceptFinding(gym.db, marked.strikeId, 'all-at-once', false);
    expect(await found('all at once')).toEqual([marked.clipId]);
    await gym.db.updateTable('student').set({ name: 'Renamed Now' }).execute();
    expect(await found('renamed')).toHaveLength(2);
    expect(await found('somebody')).toEqual([]);
  });

  it('not while it is put away', async () => {
    expect(await found('cross')).toHaveLength(1);
    await setTrashed(gym.db, 'clip', marked.clipId, true);
    expect(await found('cross')).toEqual([]);
    await setTrashed(gym.db, 'clip', marked.clipId, false);
    expect(await found('cross')).toHaveLength(1);
  });
});

describe('what is typed', () => {
  it('is never a command of the index', async () => {
    for (const words of ['"', 'NEAR(', 'a AND', 'words:cross', '-cross', '^', '*', '#', "';--"]) {
      await expect(found(words), words).resolves.toBeDefined();
    }
    expect(matchOf('…')).toBeNull();
    expect(matchOf('left "knee')).toBe('"left"* "knee"*');
  });

  it('behind a # is a tag, the most used first', () => {
    expect(tagsOf(['#Bag and #kräftig', 'again #bag', 'no. 5 # none'])).toEqual(['bag', 'kräftig']);
  });
});
