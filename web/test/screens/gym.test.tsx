// @vitest-environment happy-dom
/** The gym: its settings, its backups and the way back, its file, what was deleted, films in trouble. */
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Problem } from '@sinew/core/foundation/problem/problem';
import { askBytes } from '@/api/client';
import type { FilmTrouble } from '@/data/maintenance/filmCheck';
import type { Unreadable } from '@/data/database/unreadable';
import type { Trashed } from '@/data/maintenance/trash';
import { USUAL_MANNER } from '@/manner/manner';
import * as actions from '@/screens/gym/actions';
import { GymScreen } from '@/screens/gym/GymScreen';
import { setPutAway } from '@/screens/student/actions';
import { onScreen } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
const refresh = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn(), refresh }),
  usePathname: () => '/gym',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/gym/actions', () => ({
  keepSettings: vi.fn(async () => null),
  backUpNow: vi.fn(async () => null),
  goBackTo: vi.fn(async () => null),
}));
vi.mock('@/screens/student/actions', () => ({ setPutAway: vi.fn(async () => undefined) }));
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  askBytes: vi.fn(),
}));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

const SETTINGS = {
  name: 'Wrayholm Boathouse',
  className: 'Tuesday class',
  grades: ['white', 'blue'],
  from: { full: 'blue' },
  sessions: [],
  manner: USUAL_MANNER,
};
const BACKUP = { name: '2026-11-27T020000.000Z.db', at: '2026-11-27T02:00:00.000Z', bytes: 2.4e6 };

interface Given {
  readonly trash?: readonly Trashed[];
  readonly troubles?: readonly FilmTrouble[];
  readonly unreadable?: readonly Unreadable[];
  readonly isOwner?: boolean;
}
const gym = (change: Given = {}) =>
  onScreen(
    <GymScreen
      settings={SETTINGS}
      trash={change.trash ?? []}
      backups={[BACKUP]}
      folder="/data/backups"
      keptDays={30}
      troubles={change.troubles ?? []}
      unreadable={change.unreadable ?? []}
      notices={null}
      isOpen={false}
      isOwner={change.isOwner ?? true}
    />,
  );
const region = (name: string | RegExp) => within(screen.getByRole('region', { name }));

describe('the settings', () => {
  it('are kept as typed: grades by commas, a speed only from a grade there is', async () => {
    const { user } = gym();
    fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'The Boathouse' } });
    fireEvent.change(screen.getByLabelText('Grades, the lowest first'), {
      target: { value: ' white ,, green ' },
    });
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    // “blue” is no grade any more. Who changes the settings says what they saw.
    const wanted = { ...SETTINGS, name: 'The Boathouse', grades: ['white', 'green'], from: {} };
    expect(actions.keepSettings).toHaveBeenCalledWith(wanted, SETTINGS);
    await waitFor(() => expect(toast).toHaveBeenCalledWith('Kept.'));
  });

  it('say what is wrong, and that nothing is lost when nobody answers', async () => {
    const { user } = gym();
    vi.mocked(actions.keepSettings).mockResolvedValueOnce('The gym needs a name.');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    expect(toast).toHaveBeenLastCalledWith('The gym needs a name.');
    vi.mocked(actions.keepSettings).mockRejectedValueOnce(new Error('offline'));
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(toast).toHaveBeenLastCalledWith(expect.stringMatching(/Nothing is/)),
    );
  });
});

describe('backups', () => {
  it('say where they are, when and how large, and one is made when asked', async () => {
    const { user } = gym();
    const section = region('Backups');
    expect(section.getByText('/data/backups')).toBeTruthy();
    expect(section.getByText('2.4 MB without films')).toBeTruthy();
    await user.click(section.getByRole('button', { name: 'Back up now' }));
    expect(toast).toHaveBeenCalledWith('The backup is made.');
  });

  it('are gone back to only after a question', async () => {
    const { user } = gym();
    await user.click(screen.getByRole('button', { name: 'Go back to it' }));
    const dialog = within(await screen.findByRole('dialog'));
    await user.click(dialog.getByRole('button', { name: 'Stay here' }));
    expect(actions.goBackTo).not.toHaveBeenCalled();
    await user.click(screen.getByRole('button', { name: 'Go back to it' }));
    await user.click(await screen.findByRole('button', { name: 'Go back' }));
    expect(actions.goBackTo).toHaveBeenCalledWith(BACKUP.name);
    await waitFor(() => expect(toast).toHaveBeenCalledWith('The gym is as it was.'));
  });

  it('that could not be gone back to say why', async () => {
    const { user } = gym();
    vi.mocked(actions.goBackTo).mockResolvedValueOnce('This backup is damaged.');
    await user.click(screen.getByRole('button', { name: 'Go back to it' }));
    await user.click(await screen.findByRole('button', { name: 'Go back' }));
    await waitFor(() => expect(toast).toHaveBeenCalledWith('This backup is damaged.'));
  });
});

describe('the gym as a file', () => {
  const answer = (body: object) =>
    vi.mocked(askBytes).mockResolvedValueOnce(Response.json(body) as never);
  const counts = (students: number, clips: number) => ({ students, clips, strikes: 3 });
  const choose = async () => {
    const drawn = gym();
    const section = region('The gym as a file');
    await drawn.user.upload(
      section.getByLabelText('Check a gym’s file'),
      new File(['x'], 'gym.zip', { type: 'application/zip' }),
    );
    return { ...drawn, section };
  };

  it('is checked first, told of, and taken over only then', async () => {
    answer({
      checked: { gym: 'Wrayholm', ...counts(1, 2), madeAt: '2026-11-01T10:00:00.000Z', missing: 0 },
    });
    const { user, section } = await choose();
    expect((await section.findByText(/^Sound:/)).textContent).toMatch(
      /^Sound: Wrayholm, 1 student, 2 clips, 3 strikes, of /,
    );
    answer({ imported: { added: counts(1, 2), present: counts(0, 1) } });
    await user.click(section.getByRole('button', { name: 'Take it over' }));
    expect((await section.findByText(/^Taken over/)).textContent).toBe(
      'Taken over: 1 student and 2 clips. Here already, and left as they are: 0 students and 1 clip.',
    );
    expect(vi.mocked(askBytes).mock.calls.map(([address]) => address)).toEqual([
      '/api/gym?check',
      '/api/gym',
    ]);
    expect(refresh).toHaveBeenCalled();
    expect(section.queryByRole('button', { name: 'Take it over' })).toBeNull();
  });

  it('that is damaged is told of, and cannot be taken over', async () => {
    vi.mocked(askBytes).mockRejectedValueOnce(
      new Problem('not-understood', {
        happened: 'This is not a gym’s file.',
        safe: 'Nothing was changed.',
      }),
    );
    const { section } = await choose();
    expect(await section.findByText('This is not a gym’s file. Nothing was changed.')).toBeTruthy();
    expect(section.queryByRole('button', { name: 'Take it over' })).toBeNull();
  });
});

describe('what was deleted', () => {
  const note: Trashed = {
    kind: 'note',
    id: 'n',
    what: 'Slept badly',
    student: 'Ada',
    deletedAt: '2026-11-27T10:00:00.000Z',
  };

  it('is brought back, and said so', async () => {
    const { user } = gym({ trash: [note] });
    await user.click(region('Deleted').getByRole('button', { name: 'Bring it back' }));
    expect(setPutAway).toHaveBeenCalledWith('note', 'n', false);
    await waitFor(() => expect(toast).toHaveBeenCalledWith('Slept badly is back.'));
  });

  it('stays where the server does not answer', async () => {
    vi.mocked(setPutAway).mockRejectedValueOnce(new Error('offline'));
    const { user } = gym({ trash: [note] });
    await user.click(region('Deleted').getByRole('button', { name: 'Bring it back' }));
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/^Not brought/)));
  });
});

it('what cannot be read is told of, with whose it is where a page shows it', () => {
  gym({
    unreadable: [
      { what: 'the scale of a clip', of: { name: 'cross.mp4', href: '/bench/clip' } },
      { what: 'a camera set-up', of: null },
    ],
  });
  const section = region('Not readable');
  expect(section.getByRole('heading').textContent).toBe('What cannot be read, 2');
  expect(section.getByRole('link', { name: 'cross.mp4' }).getAttribute('href')).toBe('/bench/clip');
  cleanup();
  gym();
  expect(screen.queryByRole('region', { name: 'Not readable' })).toBeNull();
});

it('films in trouble are listed with whose they are, fifty of them, and how many more', () => {
  const troubles = Array.from({ length: 53 }, (_, i): FilmTrouble => ({
    clipId: `clip-${i}`,
    fileName: `film-${i}.mp4`,
    studentId: 'ada',
    student: 'Ada',
    createdAt: '2026-11-01T10:00:00.000Z',
    trouble: i === 0 ? 'missing' : 'altered',
  }));
  gym({ troubles });
  const section = region('Missing films');
  expect(section.getAllByRole('listitem')).toHaveLength(50);
  expect(section.getByText('And 3 more.')).toBeTruthy();
  expect(section.getAllByText('missing')).toHaveLength(1);
  cleanup();
  gym();
  expect(screen.queryByRole('region', { name: 'Missing films' })).toBeNull();
});

it('a coach who is not the owner is offered nothing that only the owner may do', () => {
  gym({ isOwner: false });
  const backups = region('Backups');
  expect(backups.queryByRole('button', { name: 'Go back to it' })).toBeNull();
  expect(backups.getByRole('button', { name: 'Back up now' })).toBeTruthy();
  expect(backups.getByText(/The gym’s owner goes back to one/)).toBeTruthy();
  expect(screen.queryByRole('link', { name: 'Save the gym' })).toBeNull();
  cleanup();
  gym();
  expect(region('Backups').getByRole('button', { name: 'Go back to it' })).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Save the gym' })).toBeTruthy();
});
