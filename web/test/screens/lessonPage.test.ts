// @vitest-environment happy-dom
/** The page that is sent home: whole without a network, safe with any words, and it remembers its boxes. */
import { describe, expect, it } from 'vitest';
import type { CardCue, CardOf } from '@/data/finding/card';
import type { Given } from '@/data/work/work';
import { lessonPage, type Lesson } from '@/screens/card/lessonPage';

const NASTY = '</script><img src=x onerror="alert(1)"> “Ada” & Co';
const given = (change: Partial<Given> = {}) =>
  ({
    id: 'work-1',
    name: 'Slow three-count',
    dose: '3 × 8',
    stances: 'both',
    intent: 'slow',
    gate: '3 clean sets in a row.',
    cautions: ['Breathe through it.'],
    nextCheck: '2026-12-05',
    ...change,
  }) as Given;
const cue = (change: Partial<CardCue> = {}): CardCue => ({
  cue: {
    technique: 'cross',
    text: 'Hips first.',
    evidence: 'Within 3 ms.',
    drill: '',
  } as CardCue['cue'],
  fault: 'All at once',
  caution: null,
  isInjury: false,
  picture: null,
  number: { name: 'Hips before trunk', then: '0 ± 3 ms', now: null, verdict: null, why: null },
  work: [given()],
  days: ['2026-11-29', '2026-11-30'],
  ...change,
});
const lesson = (card: Partial<CardOf> = {}, change: Partial<Lesson> = {}) =>
  lessonPage({
    gym: 'Wrayholm Boathouse',
    student: 'Ada Storm',
    madeOn: '2026-11-29',
    card: { cues: [cue()], other: [], heed: [], ...card },
    picture: null,
    review: null,
    calendar: null,
    from: null,
    ...change,
  });
const read = (page: string) => new DOMParser().parseFromString(page, 'text/html');

describe('the page sent home', () => {
  it('has the cue, what it was seen by, then and now, the work with its caution and the next date', () => {
    const text = read(lesson()).querySelector('main')!.textContent!;
    for (const words of [
      'Hips first.',
      'Within 3 ms.',
      'Hips before trunk',
      'now not filmed again',
      'Slow three-count: 3 × 8',
      'Breathe through it.',
      'To be filmed again: Sat 5 Dec',
      'Pain, numbness or dizziness: stop',
    ]) {
      expect(text).toContain(words);
    }
  });

  it('has a box for each day, a key of its own each', () => {
    const boxes = [...read(lesson()).querySelectorAll<HTMLInputElement>('[data-box]')];
    expect(boxes.map(({ dataset }) => dataset.box)).toEqual([
      'work-1 2026-11-29',
      'work-1 2026-11-30',
    ]);
  });

  it('says no power where it can hurt, and what is left out', () => {
    const page = lesson({
      cues: [cue({ isInjury: true, caution: 'Keep a bend.' })],
      heed: ['No rotations.'],
    });
    const heeds = [...read(page).querySelectorAll('.heed')].map((one) => one.textContent);
    expect(heeds).toEqual(['No power until your coach says so. Keep a bend.', 'No rotations.']);
  });

  it('asks no network: its policy forbids it, and it names no address', () => {
    const page = lesson(
      {},
      {
        picture: 'data:image/jpeg;base64,AAAA',
        review: { film: { inside: 'AAAA' }, pieces: [] },
        calendar: 'X',
      },
    );
    const policy = read(page).querySelector('meta[http-equiv]')!.getAttribute('content')!;
    expect(policy).toContain("default-src 'none'");
    expect(page).not.toMatch(/https?:|src="(?!data:)|@import|url\(/);
  });

  it('holds the film and its words, and the picture as its poster', () => {
    const pieces = [{ part: 'true', from: 0, to: 1.5, words: 'Cross </script>' }] as const;
    const page = read(
      lesson(
        {},
        { picture: 'data:image/jpeg;base64,UUUU', review: { film: { inside: 'VVVV' }, pieces } },
      ),
    );
    expect(page.querySelector('#film')!.textContent).toBe('VVVV');
    expect(JSON.parse(page.querySelector('#said')!.textContent!)).toEqual(pieces);
    expect(page.querySelector('video')!.getAttribute('poster')).toBe('data:image/jpeg;base64,UUUU');
    expect(read(lesson()).querySelector('video')).toBeNull();
  });

  it('stays a page whatever is written in it', () => {
    const nasty = lesson(
      {
        cues: [
          cue({
            cue: { technique: 'cross', text: NASTY, evidence: NASTY, drill: '' } as CardCue['cue'],
            caution: NASTY,
            work: [given({ id: NASTY, name: NASTY, dose: NASTY, gate: NASTY, cautions: [NASTY] })],
          }),
        ],
        other: [given({ name: NASTY })],
        heed: [NASTY],
      },
      { student: NASTY, gym: NASTY, calendar: NASTY },
    );
    const page = read(nasty);
    expect(page.querySelectorAll('img')).toHaveLength(0);
    expect(page.querySelectorAll('script')).toHaveLength(1);
    expect(page.querySelector('header h1')!.textContent).toBe(NASTY);
    expect(decodeURIComponent(page.querySelector('a')!.getAttribute('href')!)).toContain(NASTY);
  });
});
