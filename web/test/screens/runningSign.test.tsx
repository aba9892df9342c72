// @vitest-environment happy-dom
/** A session goes on while the coach is elsewhere: every other screen says so. */
import { act, cleanup, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { SESSIONS } from '@sinew/core/train/work/session';
import { begin, paused } from '@sinew/core/train/work/timer';
import { keepRun, type KeptRun } from '@/timer/keptRun';
import { RunningSign } from '@/timer/RunningSign';
import { inMinutes } from '@/ui/inMinutes';

let path = '/plan';
vi.mock('next/navigation', () => ({ usePathname: () => path }));

const START = Date.parse('2026-05-01T18:00:00Z');
const kept = (run: KeptRun['run']): KeptRun => ({
  id: 'run',
  session: SESSIONS.find(({ id }) => id === 'rounds')!,
  run,
  combinations: [],
  pace: 4,
  seed: 1,
  isSpoken: false,
  students: [],
});

beforeEach(() => {
  vi.useFakeTimers({ now: START });
  localStorage.clear();
  path = '/plan';
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it('says how long the round still goes, second by second, and leads back', () => {
  render(<RunningSign />);
  expect(screen.queryByRole('link')).toBeNull();
  act(() => keepRun(kept(begin(START))));
  const shown = () => screen.getByRole('link').textContent!;
  const seconds = () => {
    const [, minutes, rest] = /(\d+):(\d\d)$/.exec(shown())!;
    return 60 * Number(minutes) + Number(rest);
  };
  const first = seconds();
  act(() => vi.advanceTimersByTime(3000));
  expect(seconds()).toBe(first - 3);
  expect(screen.getByRole('link').getAttribute('href')).toBe('/timer');
  act(() => keepRun(kept(paused(begin(START), START + 3000))));
  expect(shown()).toBe('Timer: stands still');
  act(() => keepRun(null));
  expect(screen.queryByRole('link')).toBeNull();
});

it('is not over the timer itself', () => {
  path = '/timer';
  act(() => keepRun(kept(begin(START))));
  render(<RunningSign />);
  expect(screen.queryByRole('link')).toBeNull();
});

it('writes minutes and seconds', () => {
  expect([0, 9, 65, 600].map(inMinutes)).toEqual(['0:00', '0:09', '1:05', '10:00']);
});
