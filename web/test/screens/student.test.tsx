// @vitest-environment happy-dom
/** A student's page: who they are, the consent before any film, the clips and what becomes of them. */
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { plusDays } from '@sinew/core/foundation/calendar/day';
import type { ClipSummary } from '@/data/clip/clips';
import type { Student } from '@/data/student/students';
import { note } from '@/screens/ledger/actions';
import { Notes } from '@/screens/ledger/Notes';
import * as actions from '@/screens/student/actions';
import { ClipRow } from '@/screens/student/ClipRow';
import { Consent } from '@/screens/student/Consent';
import { StudentForm } from '@/screens/student/StudentForm';
import { onScreen, student as anybody } from './kit';

vi.mock('sonner', () => ({ toast: vi.fn() }));
vi.mock('@/video/thumbs', () => ({ thumbOf: async () => null }));
const push = vi.hoisted(() => vi.fn());
vi.mock('next/navigation', () => ({
  useRouter: () => ({ push, refresh: vi.fn() }),
  usePathname: () => '/students/ada',
  useSearchParams: () => new URLSearchParams(),
}));
vi.mock('@/screens/student/actions', () => ({
  saveStudent: vi.fn(),
  saveConsent: vi.fn(),
  endConsent: vi.fn(async () => null),
  setPutAway: vi.fn(async () => undefined),
}));
vi.mock('@/screens/ledger/actions', () => ({ note: vi.fn(async () => null) }));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

const TODAY = '2026-11-28';
const given = {
  id: 'consent',
  givenBy: 'student',
  name: 'Ada Storm',
  givenOn: '2026-01-02',
  expiresOn: null,
} as const;
const student = (change: Partial<Student> = {}) =>
  anybody({ stance: 'southpaw', grade: 'blue', heightM: 1.715, massKg: 64, ...change });
const sent = (action: unknown) =>
  Object.fromEntries(
    vi.mocked(action as (...all: unknown[]) => unknown).mock.calls[0]!.at(-1) as FormData,
  );

describe('the form', () => {
  it('shows what is known, sends what is typed, and leads to the student', async () => {
    vi.mocked(actions.saveStudent).mockResolvedValue({ values: {}, errors: {}, saved: 'ada' });
    const { user } = onScreen(<StudentForm student={student()} />);
    const height = screen.getByLabelText<HTMLInputElement>('Height, cm');
    expect(height.value).toBe('171.5');
    await user.clear(height);
    await user.type(height, '172,5');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(push).toHaveBeenCalledWith('/students/ada'));
    expect(sent(actions.saveStudent)).toMatchObject({
      name: 'Ada Storm',
      stance: 'southpaw',
      heightCm: '172,5',
    });
  });

  it('keeps what was typed and says beside each field what is wrong', async () => {
    vi.mocked(actions.saveStudent).mockImplementation(async (_, __, form) => ({
      values: Object.fromEntries(form) as Record<string, string>,
      errors: { name: 'A name is needed to find the student again.' },
    }));
    const { user } = onScreen(<StudentForm student={null} />);
    await user.type(screen.getByLabelText('Mass, kg'), '64');
    await user.click(screen.getByRole('button', { name: 'Add the student' }));
    expect(await screen.findByText('A name is needed to find the student again.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Mass, kg').value).toBe('64');
    expect(push).not.toHaveBeenCalled();
  });

  it('sent again after a broken line carries the same key', async () => {
    vi.mocked(actions.saveStudent).mockRejectedValueOnce(new Error('offline'));
    vi.mocked(actions.saveStudent).mockResolvedValue({ values: {}, errors: {}, saved: 'x' });
    const { user } = onScreen(<StudentForm student={null} />);
    await user.type(screen.getByLabelText('Name'), 'Bo');
    await user.click(screen.getByRole('button', { name: 'Add the student' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/does not answer/);
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Bo');
    await user.click(screen.getByRole('button', { name: 'Add the student' }));
    await waitFor(() => expect(actions.saveStudent).toHaveBeenCalledTimes(2));
    const keys = vi.mocked(actions.saveStudent).mock.calls.map(([, , form]) => form.get('key'));
    expect(keys[0]).toBeTruthy();
    expect(keys[1]).toBe(keys[0]);
  });
});

describe('consent', () => {
  it('is asked for before any clip: the student’s own, or a guardian’s', () => {
    onScreen(<Consent student={student({ consent: null })} today={TODAY} />);
    expect(screen.getByLabelText<HTMLInputElement>('Given by').value).toBe('Ada Storm');
    expect(screen.getByText(/must consent to being filmed before any clip/)).toBeTruthy();
    expect(screen.getByText(/Clips stay on this machine/)).toBeTruthy();
    cleanup();
    onScreen(
      <Consent student={student({ consent: null, isMinor: true })} today={TODAY} hasStore />,
    );
    expect(screen.getByLabelText<HTMLInputElement>('Guardian’s name').value).toBe('');
    expect(screen.getByText(/is under 18/)).toBeTruthy();
    expect(screen.getByText(/lie in the store of your organisation/)).toBeTruthy();
  });

  it('is recorded with who, when and until when', async () => {
    vi.mocked(actions.saveConsent).mockResolvedValue({ values: {}, errors: {}, saved: 'x' });
    const { user } = onScreen(
      <Consent student={student({ consent: null, isMinor: true })} today={TODAY} />,
    );
    await user.type(screen.getByLabelText('Guardian’s name'), 'Lena Storm');
    fireEvent.change(screen.getByLabelText('Until'), { target: { value: plusDays(TODAY, 90) } });
    await user.click(screen.getByRole('button', { name: 'Record consent' }));
    await waitFor(() => expect(actions.saveConsent).toHaveBeenCalled());
    expect(sent(actions.saveConsent)).toMatchObject({
      givenBy: 'guardian',
      name: 'Lena Storm',
      givenOn: TODAY,
      expiresOn: plusDays(TODAY, 90),
    });
  });

  it('in force says from whom and until when, and can be mended', async () => {
    const consent = { ...given, expiresOn: '2027-01-01' };
    vi.mocked(actions.saveConsent).mockResolvedValue({ values: {}, errors: {}, saved: 'consent' });
    const { user } = onScreen(<Consent student={student({ consent })} today={TODAY} />);
    expect(screen.getByText(/on that day the films go, the numbers stay/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change' }));
    expect(screen.getByLabelText<HTMLInputElement>('Until').value).toBe('2027-01-01');
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(screen.queryByLabelText('Until')).toBeNull());
    expect(vi.mocked(actions.saveConsent).mock.calls[0]!.slice(0, 2)).toEqual(['ada', 'consent']);
  });

  it('is withdrawn only with a word on the films: gone now, or on a day', async () => {
    const { user } = onScreen(<Consent student={student()} today={TODAY} />);
    await user.click(screen.getByRole('button', { name: 'Withdraw' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByText(/This cannot be undone/)).toBeTruthy();
    await user.click(dialog.getByLabelText(/are kept until a day/));
    vi.mocked(actions.endConsent).mockResolvedValueOnce('Choose a day to come.');
    await user.click(dialog.getByRole('button', { name: 'Withdraw' }));
    expect((await dialog.findByRole('alert')).textContent).toBe('Choose a day to come.');
    expect(actions.endConsent).toHaveBeenLastCalledWith('ada', {
      films: 'keep',
      until: plusDays(TODAY, 30),
    });
    await user.click(dialog.getByLabelText(/are erased now/));
    await user.click(dialog.getByRole('button', { name: 'Withdraw and erase the films' }));
    expect(actions.endConsent).toHaveBeenLastCalledWith('ada', { films: 'erase', until: null });
  });
});

describe('a clip', () => {
  const clip = (change: object = {}) =>
    ({
      id: 'clip',
      fileName: 'cross.mp4',
      view: 'side',
      intent: 'full',
      round: 2,
      isPurged: false,
      notes: [],
      createdAt: '2026-11-20T10:00:00.000Z',
      strikes: [
        { technique: 'cross', isAutomatic: true, marksLeft: 0 },
        { technique: 'jab', isAutomatic: false, marksLeft: 1 },
        { technique: 'jab', isAutomatic: false, marksLeft: 0 },
      ],
      ...change,
    }) as unknown as ClipSummary;

  it('says what is in it and how far it is marked', () => {
    onScreen(<ClipRow clip={clip()} />);
    const link = screen.getByRole('link', { name: /^Cross, 2 × Jab, automatic/ });
    expect(link.getAttribute('href')).toBe('/bench/clip');
    cleanup();
    onScreen(<ClipRow clip={clip({ strikes: [] })} />);
    expect(screen.getByText('Nothing marked yet')).toBeTruthy();
  });

  it('whose film has gone leads nowhere, and says what stays', () => {
    onScreen(<ClipRow clip={clip({ isPurged: true })} />);
    expect(screen.queryByRole('link')).toBeNull();
    expect(screen.getByText(/its numbers stay in the ledger/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Move' })).toBeNull();
  });

  it('is put away with a way back', async () => {
    const { user } = onScreen(<ClipRow clip={clip()} />);
    await user.click(screen.getByRole('button', { name: 'Delete' }));
    expect(actions.setPutAway).toHaveBeenCalledWith('clip', 'clip', true);
    const [says, options] = vi.mocked(toast).mock.calls[0]!;
    expect(says).toBe('cross.mp4 is put away.');
    (options as unknown as { action: { onClick: () => void } }).action.onClick();
    expect(actions.setPutAway).toHaveBeenLastCalledWith('clip', 'clip', false);
    vi.mocked(actions.setPutAway).mockRejectedValueOnce(new Error('offline'));
    await user.click(screen.getByRole('button', { name: 'Delete' }));
    expect(toast).toHaveBeenLastCalledWith(expect.stringMatching(/^Not deleted/));
  });
});

describe('notes', () => {
  const notes = () =>
    onScreen(
      <Notes
        studentId="ada"
        technique="cross"
        today={TODAY}
        notes={[{ id: 'n', day: TODAY, technique: null, text: 'Slept badly' }]}
      />,
    );

  it('are kept, and stay in the field when they are not', async () => {
    const { user } = notes();
    const field = screen.getByLabelText<HTMLTextAreaElement>('A new note');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep the note' }).disabled).toBe(
      true,
    );
    await user.type(field, 'Left knee stiff');
    vi.mocked(note).mockRejectedValueOnce(new Error('offline'));
    await user.click(screen.getByRole('button', { name: 'Keep the note' }));
    await waitFor(() => expect(toast).toHaveBeenCalledWith(expect.stringMatching(/still here/)));
    expect(field.value).toBe('Left knee stiff');
    await user.click(screen.getByRole('button', { name: 'Keep the note' }));
    await waitFor(() => expect(field.value).toBe(''));
    expect(note).toHaveBeenLastCalledWith({
      studentId: 'ada',
      technique: 'cross',
      day: TODAY,
      text: 'Left knee stiff',
    });
  });

  it('are put away with a way back', async () => {
    const { user } = notes();
    await user.click(screen.getByRole('button', { name: 'Delete' }));
    expect(actions.setPutAway).toHaveBeenCalledWith('note', 'n', true);
  });
});
