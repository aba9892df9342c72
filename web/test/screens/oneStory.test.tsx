// @vitest-environment happy-dom
/** Floor, the student's page and Work tell one story of what is next, in every state there is. */
import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { nextThing, type Undecided, type WorkInHand } from '@sinew/core/train/work/nextThing';
import type { Student } from '@/data/student/students';
import { SOUND } from '@sinew/core/train/work/condition';
import { checkOf } from '@sinew/core/train/work/prescription';
import type { Cue } from '@/data/finding/findings';
import { NOTHING, type FloorFacts } from '@/data/gym/floor';
import { standingOf } from '@/data/gym/standing';
import type { Given, Proposal, Work } from '@/data/work/work';
import { FloorTable } from '@/screens/floor/FloorTable';
import { floorRows } from '@/screens/floor/rows';
import { StudentPage } from '@/screens/student/StudentPage';
import { WorkScreen } from '@/screens/work/WorkScreen';
import { stepOf } from '@/ui/nextStep';
import { onScreen, student } from './kit';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn(), refresh: vi.fn() }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/student/actions', () => ({ saveConsent: vi.fn() }));
vi.mock('@/screens/student/hurtActions', () => ({}));
vi.mock('@/screens/library/actions', () => ({}));
vi.mock('@/screens/work/actions', () => ({}));
vi.mock('@/screens/work/VolumeBars', () => ({ VolumeBars: () => null }));
vi.mock('@/ui/newsLine', () => ({ LookAgainOnNews: () => null }));

afterEach(cleanup);

const TODAY = '2026-11-28';
const ADA = student();

const open = (isToConfirm: boolean, isSearched = false) => ({
  id: 'film',
  view: 'side' as const,
  isToConfirm,
  isSearched,
});
const work = (change: Partial<WorkInHand> = {}): WorkInHand => ({
  name: 'Slow chain',
  technique: 'cross',
  nextCheck: '2026-12-03',
  sessions: 1,
  retest: null,
  ...change,
});
const due = { nextCheck: '2026-11-27' };
const retest = { then: 'x', now: 'y', day: '2026-11-27' };
const undecided: Undecided = {
  clipId: 'film',
  strikeId: 'strike',
  technique: 'cross',
  leaks: 2,
  day: '2026-11-28',
};
const idleCue = {
  id: 'cue',
  studentId: 'ada',
  technique: 'cross',
  text: 'Hips first.',
  drill: '',
  fault: 'all-at-once',
  evidence: '',
  strikeId: 's',
  clipId: 'film',
  updatedAt: '',
  isWorked: false,
  film: null,
} as const satisfies Cue;

interface State {
  readonly facts?: Partial<FloorFacts>;
  readonly cues?: readonly Cue[];
  readonly hurts?: boolean;
  readonly who?: Student;
}

/** [state, what is next, its note, Work's headline]. */
const STATES: readonly (readonly [string, State, string, string, string])[] = [
  [
    'no consent',
    { who: { ...ADA, consent: null } },
    'Ask for consent',
    'before filming',
    'No work given.',
  ],
  [
    'a minor without consent',
    { who: { ...ADA, consent: null, isMinor: true } },
    'Ask for consent',
    'a guardian’s, before filming',
    'No work given.',
  ],
  ['no film', {}, 'First film', 'stance first', 'No work given.'],
  [
    'a film to mark',
    { facts: { clips: 1, open: [open(false)] } },
    'Mark the clip',
    'filmed from the side',
    'No work given.',
  ],
  [
    'a film to confirm',
    { facts: { clips: 1, open: [open(true)] } },
    'Confirm the clip',
    'filmed from the side',
    'No work given.',
  ],
  [
    'a film whose body is looked for',
    { facts: { clips: 1, open: [open(false, true)] } },
    'Mark the clip',
    'the body is still being looked for',
    'No work given.',
  ],
  [
    'leaks nobody has decided on',
    { facts: { clips: 1, undecided } },
    'Decide on 2 leaks',
    'cross, filmed today',
    'No work given.',
  ],
  [
    'a cue without work',
    { facts: { clips: 1 }, cues: [idleCue] },
    'Give the work',
    'a cue without a drill',
    'A cue without work.',
  ],
  [
    'work going on',
    { facts: { clips: 1, work: [work()] } },
    'Slow chain',
    'film again in 5 days',
    'One thing to work on.',
  ],
  [
    'a check that is due',
    { facts: { clips: 1, work: [work(due)] } },
    'Film again',
    'due yesterday',
    'Time to film again.',
  ],
  [
    'worked often enough',
    { facts: { clips: 1, work: [work({ sessions: 3 })] } },
    'Film again',
    'worked three times',
    'Time to film again.',
  ],
  [
    'filmed again when it was due',
    { facts: { clips: 2, work: [work({ ...due, retest })] } },
    'Did it change?',
    'filmed again yesterday',
    'Filmed again: did it change?',
  ],
  [
    'something hurts, whatever else waits',
    { facts: { clips: 2, work: [work(due)], open: [open(false)], undecided }, hurts: true },
    'Slow only',
    'something hurts or can: clear it first',
    'Slow only, until it is cleared.',
  ],
  ['nothing open', { facts: { clips: 1 } }, 'Film again', 'no leak open', 'No work given.'],
];

const given = (one: WorkInHand): Given => ({
  ...one,
  id: one.name,
  drill: 'three-count',
  dose: '3 × 10',
  stances: 'both',
  intent: 'slow',
  gate: '',
  fault: 'all-at-once',
  givenOn: TODAY,
  override: '',
  check: checkOf(one.nextCheck, one.sessions, TODAY),
  todaysDose: null,
  cautions: [],
  doneToday: { strikes: 0, seconds: 0 },
  atHome: [],
});

describe.each(STATES)(
  '%s',
  (_, { facts = {}, cues = [], hurts = false, who = ADA }, text, note, headline) => {
    const all = { ...NOTHING, ...facts };
    const next = nextThing(standingOf(who, all, cues, hurts), TODAY);
    const step = stepOf(next, who.id, TODAY);

    it('is named on the Floor', () => {
      const rows = floorRows({
        students: [who],
        facts: new Map([[who.id, all]]),
        cues,
        hurting: new Set(hurts ? [who.id] : []),
        today: TODAY,
      });
      onScreen(<FloorTable rows={rows} />);
      expect(screen.getByRole('link', { name: text }).getAttribute('href')).toBe(step.href);
      expect(screen.getByText(note)).toBeTruthy();
    });

    it('leads the student’s page', () => {
      onScreen(
        <StudentPage
          student={who}
          next={step}
          clips={[]}
          cues={cues}
          talks={[]}
          hurts={[]}
          trend={null}
          hasStore={false}
          today={TODAY}
        />,
      );
      const lead = screen.getByRole('region', { name: 'Next' });
      expect(lead.querySelector('a')!.textContent).toBe(`${text}Enter`);
      expect(lead.textContent).toContain(note);
    });

    it('is what Work says too', () => {
      const own = {
        given: all.work.map(given),
        proposals: [] as Proposal[],
        gates: [],
        injuries: [],
        hurts: [],
        condition: SOUND,
        volume: {} as Work['volume'],
        logs: [],
      } satisfies Work;
      onScreen(
        <WorkScreen student={who} work={own} cues={[]} next={next} drills={[]} today={TODAY} />,
      );
      expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(headline);
      // The same words beside the piece of work itself.
      if (next.kind === 'compare' || next.kind === 'film-again') {
        expect(screen.getByRole('list').textContent).toMatch(
          new RegExp(`${text.replace('?', '\\?')}:? ${note}`),
        );
      }
    });
  },
);
