// @vitest-environment happy-dom
/** What Sinew asks before it goes on, and what becomes of a film that is added or moved. */
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ask } from '@/api/client';
import type { ClipSummary } from '@/data/clip/clips';
import type { Upkeep } from '@/data/maintenance/maintain';
import type { Student } from '@/data/student/students';
import { confirmDate, putFilmsAside } from '@/screens/gym/actions';
import { Archive } from '@/screens/student/Archive';
import { BirthDate } from '@/screens/student/BirthDate';
import { MoveClip } from '@/screens/student/MoveClip';
import { NewClip, type Answers } from '@/screens/student/NewClip';
import * as students from '@/screens/student/actions';
import { UpkeepNotices } from '@/screens/upkeep/UpkeepNotices';
import { checkFile } from '@/video/checkFile';
import { transfer } from '@/video/transfer';
import { onScreen } from './kit';

vi.mock('@/video/thumbs', () => ({ thumbOf: async () => null }));
vi.mock('sonner', () => ({ toast: vi.fn() }));
const push = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push, refresh: vi.fn() }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/gym/actions', () => ({
  confirmDate: vi.fn(async () => null),
  putFilmsAside: vi.fn(async () => null),
}));
vi.mock('@/screens/student/actions', () => ({
  archive: vi.fn(async () => undefined),
  moveTo: vi.fn(async () => ({ moved: 1 })),
  saveBirthDate: vi.fn(async () => null),
  setPutAway: vi.fn(async () => undefined),
}));
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(),
}));
vi.mock('@/video/checkFile', () => ({ checkFile: vi.fn() }));
vi.mock('@/video/transfer', () => ({ transfer: vi.fn() }));
vi.mock('@/video/useSurvey', () => ({
  useSurvey: () => ({ state: { kind: 'cancelled' }, cancel: vi.fn() }),
  sendSurvey: vi.fn(),
}));
vi.mock('@/tracking/requests', () => ({ tell: vi.fn() }));
vi.mock('@/tracking/preference', () => ({ preferredModel: () => 'quick' }));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

describe('what Sinew does not decide by itself', () => {
  const sure: Upkeep = {
    clock: { isBelieved: true },
    waits: null,
    strays: null,
  } as unknown as Upkeep;
  const notices = (change: object) =>
    onScreen(<UpkeepNotices upkeep={{ ...sure, ...change } as Upkeep} today="2026-11-28" />);
  const waits = { films: 2, putAway: 1, backups: 0 };
  const doubtful = { isBelieved: false, since: '2025-10-01T10:00:00.000Z' };

  it('is nothing while all is certain, or nothing waits for the date', () => {
    notices({});
    expect(screen.queryByRole('alert')).toBeNull();
    cleanup();
    notices({ clock: doubtful });
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('is the date, with what would go; and the coach’s word is sent for the day that was seen', async () => {
    const { user } = notices({ clock: doubtful, waits });
    const asked = screen.getByRole('alert');
    expect(asked.textContent).toMatch(/^Is today .*28 Nov 2026\?/);
    expect(asked.textContent).toContain(
      'these would go: 2 films whose consent has ended, 1 clip or student put away',
    );
    await user.click(screen.getByRole('button', { name: /^Yes, it is/ }));
    expect(confirmDate).toHaveBeenCalledWith('2026-11-28');
    expect(toast).toHaveBeenCalledWith('Thank you. What was due has been done.');
    vi.mocked(confirmDate).mockResolvedValueOnce('This machine’s clock has been set meanwhile.');
    await user.click(screen.getByRole('button', { name: /^Yes, it is/ }));
    expect(toast).toHaveBeenLastCalledWith('This machine’s clock has been set meanwhile.');
  });

  it('is films of no clip: put aside when asked, and kept', async () => {
    const { user } = notices({ strays: { isEmpty: false, strays: 1, films: 9 } });
    expect(screen.getByRole('heading').textContent).toBe('1 film of 9 belongs to no clip.');
    await user.click(screen.getByRole('button', { name: 'Put them aside' }));
    expect(putFilmsAside).toHaveBeenCalled();
  });

  it('is an empty gym with films: the way back, and nothing that removes', () => {
    notices({ strays: { isEmpty: true, strays: 9, films: 9 } });
    expect(screen.getByRole('heading').textContent).toMatch(/^The gym is empty/);
    expect(screen.getByRole('link', { name: 'See the backups' })).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('a new film', () => {
  const good = {
    ok: true,
    width: 1280,
    height: 720,
    frameTimes: Array.from({ length: 60 }, (_, i) => i / 30),
    shotAt: null,
    codec: 'hevc',
    isDecodable: true,
  };
  const file = new File(['x'], 'cross.mp4', { type: 'video/mp4' });
  const added = vi.fn();
  const away = vi.fn();
  const share = vi.fn();
  const film = (check: unknown = good, given: { others?: number; shared?: Answers } = {}) => {
    vi.mocked(checkFile).mockResolvedValueOnce(check as never);
    return onScreen(
      <NewClip
        file={file}
        studentId="ada"
        others={given.others ?? 0}
        shared={given.shared ?? null}
        onShare={share}
        onAdded={added}
        onAway={away}
      />,
    );
  };
  const sends = (outcome: object) =>
    vi.mocked(transfer).mockReturnValueOnce({
      done: Promise.resolve(outcome),
      cancel: vi.fn(),
    } as never);

  it('says what is in it, and is sent with what is said of it', async () => {
    const { user } = film();
    expect(await screen.findByText('1280 × 720, 60 frames, plays at 30 a second.')).toBeTruthy();
    await user.selectOptions(screen.getByLabelText(/^Filmed/), 'front');
    await user.selectOptions(screen.getByLabelText(/^It shows/), 'cross');
    sends({ kind: 'added', id: 'clip', isKnown: false });
    await user.click(screen.getByRole('button', { name: 'Add the clip' }));
    await waitFor(() => expect(added).toHaveBeenCalledWith('clip'));
    expect(vi.mocked(transfer).mock.calls[0]![1]).toEqual({
      student: 'ada',
      view: 'front',
      rate: null,
      purpose: { technique: 'cross', question: null },
      track: 'quick',
    });
  });

  it('of an unknown strike is not gone through by itself', async () => {
    const { user } = film();
    await screen.findByText(/plays at 30/);
    sends({ kind: 'added', id: 'clip', isKnown: true });
    await user.click(screen.getByRole('button', { name: 'Add the clip' }));
    await waitFor(() => expect(added).toHaveBeenCalled());
    expect(vi.mocked(transfer).mock.calls[0]![1]).toMatchObject({
      purpose: undefined,
      track: undefined,
    });
    expect(toast).toHaveBeenCalledWith('This clip was here already; it is the same file.');
  });

  it('in slow motion must have been shot at least as fast as it plays', async () => {
    const { user } = film();
    await user.selectOptions(await screen.findByLabelText(/^The film runs/), 'slow');
    const rate = screen.getByLabelText('Shot at, frames a second');
    fireEvent.change(rate, { target: { value: '20' } });
    expect(screen.getByText(/^A number from 30 up/)).toBeTruthy();
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add the clip' });
    expect(add.disabled).toBe(true);
    fireEvent.change(rate, { target: { value: '239,76' } });
    sends({ kind: 'added', id: 'clip', isKnown: false });
    await user.click(add);
    expect(vi.mocked(transfer).mock.calls[0]![1]).toMatchObject({ rate: 239.76 });
  });

  it('that this browser does not play is added where the gym’s machine makes it readable', async () => {
    vi.mocked(ask).mockResolvedValueOnce({ isAble: true } as never);
    const { user } = film({ ...good, isDecodable: false });
    expect(
      await screen.findByText(/^This browser does not play hevc: once it is added/),
    ).toBeTruthy();
    sends({ kind: 'added', id: 'clip', isKnown: false });
    await user.click(screen.getByRole('button', { name: 'Add the clip' }));
    expect(added).toHaveBeenCalledWith('clip');
    cleanup();
    vi.mocked(ask).mockResolvedValueOnce({ isAble: false } as never);
    film({ ...good, isDecodable: false });
    expect((await screen.findByRole('alert')).textContent).toMatch(
      /no ffmpeg on the gym’s machine/,
    );
  });

  it('is sent with the place where the camera stood, where somebody says it so exactly', async () => {
    const { user } = film();
    const filmed = await screen.findByLabelText(/^Filmed/);
    await user.selectOptions(filmed, 'rear corner, chest side');
    sends({ kind: 'added', id: 'clip', isKnown: false });
    await user.click(screen.getByRole('button', { name: 'Add the clip' }));
    const about = vi.mocked(transfer).mock.calls[0]![1];
    expect(about).toMatchObject({ view: 'behind', azimuth: (3 * Math.PI) / 4 });
    cleanup();
    const again = film();
    await again.user.selectOptions(
      await screen.findByLabelText(/^Filmed/),
      'front corner, back side',
    );
    await again.user.selectOptions(screen.getByLabelText(/^Filmed/), 'side');
    sends({ kind: 'added', id: 'clip', isKnown: false });
    await again.user.click(screen.getByRole('button', { name: 'Add the clip' }));
    expect(vi.mocked(transfer).mock.calls[1]![1]).not.toHaveProperty('azimuth');
  });

  it('among several is answered once for all of them, each by what it says of itself', async () => {
    const { user } = film(good, { others: 2 });
    await user.selectOptions(await screen.findByLabelText(/^Filmed/), 'front');
    await user.click(screen.getByRole('button', { name: 'Add all 3 like this' }));
    const shared = { view: 'front', rate: null, technique: null } as const;
    expect(share).toHaveBeenCalledWith(shared);
    cleanup();
    sends({ kind: 'added', id: 'slow', isKnown: false });
    film({ ...good, shotAt: 240 }, { others: 1, shared });
    await waitFor(() => expect(added).toHaveBeenCalledWith('slow'));
    expect(vi.mocked(transfer).mock.calls[0]![1]).toMatchObject({ view: 'front', rate: 240 });
    expect(vi.mocked(transfer)).toHaveBeenCalledTimes(1);
  });

  it('that cannot have been shot as the others were is asked about', async () => {
    const shared = { view: 'front', rate: 20, technique: null } as const;
    film(good, { others: 1, shared });
    expect(await screen.findByRole('button', { name: 'Add the clip' })).toBeTruthy();
    expect(vi.mocked(transfer)).not.toHaveBeenCalled();
  });

  it('that cannot be used, or is refused, says why and is put away', async () => {
    const { user } = film({ ok: false, message: 'This is not a video file.' });
    expect((await screen.findByRole('alert')).textContent).toContain('This is not a video file.');
    await user.click(screen.getByRole('button', { name: 'Leave it out' }));
    expect(away).toHaveBeenCalled();
    cleanup();
    film();
    sends({ kind: 'refused', message: 'The disk is full.' });
    fireEvent.click(await screen.findByRole('button', { name: 'Add the clip' }));
    expect((await screen.findByRole('alert')).textContent).toContain('The disk is full.');
  });
});

describe('a film of somebody else', () => {
  it('goes to whom it shows, or says why not', async () => {
    vi.mocked(ask).mockResolvedValueOnce([
      { id: 'ada', name: 'Ada' },
      { id: 'bo', name: 'Bo' },
    ] as never);
    const done = vi.fn();
    const clip = { id: 'clip', studentId: 'ada' } as ClipSummary;
    const { user } = onScreen(<MoveClip clip={clip} onDone={done} />);
    const dialog = within(await screen.findByRole('dialog'));
    await dialog.findByRole('option', { name: 'Bo' });
    expect(dialog.queryByRole('option', { name: 'Ada' })).toBeNull();
    await user.click(dialog.getByRole('button', { name: 'Move it' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('Whose is it? Choose a student.');
    await user.selectOptions(dialog.getByLabelText('It shows'), 'Bo');
    vi.mocked(students.moveTo).mockResolvedValueOnce({ problem: 'Bo has not consented.' });
    await user.click(dialog.getByRole('button', { name: 'Move it' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('Bo has not consented.');
    vi.mocked(students.moveTo).mockResolvedValueOnce({ moved: 2 });
    await user.click(dialog.getByRole('button', { name: 'Move it' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(toast).toHaveBeenCalledWith('It and the film joined to it are with Bo now.');
  });
});

describe('a student', () => {
  it('from before birth dates were kept is asked for, and taken for the younger meanwhile', async () => {
    const who = { id: 'ada', name: 'Ada', isMinor: true } as Student;
    const { user } = onScreen(<BirthDate student={who} />);
    expect(screen.getByText(/takes them for under 16/)).toBeTruthy();
    vi.mocked(students.saveBirthDate).mockResolvedValueOnce('This day is still to come.');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    expect(await screen.findByText('This day is still to come.')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Born on'), { target: { value: '2012-03-04' } });
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    expect(students.saveBirthDate).toHaveBeenLastCalledWith('ada', '2012-03-04');
  });

  it('is deleted only after a question, with a way back', async () => {
    const who = { id: 'ada', name: 'Ada', isArchived: false };
    const { user } = onScreen(<Archive student={who} />);
    await user.click(screen.getByRole('button', { name: 'Delete' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Delete Ada?' }));
    await user.click(dialog.getByRole('button', { name: 'Keep' }));
    expect(students.setPutAway).not.toHaveBeenCalled();
    await user.click(screen.getByRole('button', { name: 'Delete' }));
    await user.click(await screen.findByRole('button', { name: 'Delete Ada' }));
    expect(students.setPutAway).toHaveBeenCalledWith('student', 'ada', true);
    await waitFor(() => expect(push).toHaveBeenCalledWith('/'));
    const [, options] = vi.mocked(toast).mock.lastCall!;
    (options as unknown as { action: { onClick: () => void } }).action.onClick();
    expect(students.setPutAway).toHaveBeenLastCalledWith('student', 'ada', false);
  });
});
