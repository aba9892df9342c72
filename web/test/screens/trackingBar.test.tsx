// @vitest-environment happy-dom
/** The bar at the foot says elsewhere that a film is done, once, and leads there. */
import { act, cleanup, screen } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Job } from '@/api/job';
import { queue } from '@/tracking/queue';
import { TrackingBar } from '@/ui/trackingBar';
import { onScreen } from './kit';

const push = vi.hoisted(() => vi.fn());
vi.mock('sonner', () => ({ toast: vi.fn() }));
vi.mock('next/navigation', () => ({ useRouter: () => ({ push }), usePathname: () => '/' }));
vi.mock('@/tracking/queue', async () => {
  const { createStore } = await import('zustand/vanilla');
  return {
    queue: createStore(() => ({ current: null, jobs: [], isOff: false, ended: null })),
    startQueue: () => () => undefined,
    switchOff: vi.fn(),
  };
});

afterEach(cleanup);
beforeEach(() => {
  vi.clearAllMocks();
  queue.setState({ current: null, jobs: [], isOff: false, ended: null });
});
const job = { clipId: 'film', fileName: 'cross.mp4', state: 'wanted' } as Job;

it('says that the body is found, and leads to the bench', () => {
  onScreen(<TrackingBar />);
  act(() => queue.setState({ ended: { job, state: 'done' } }));
  act(() => queue.setState({ jobs: [job] }));
  expect(toast).toHaveBeenCalledTimes(1);
  const [says, options] = vi.mocked(toast).mock.calls[0]!;
  expect(says).toBe('cross.mp4: the body is found.');
  (options as unknown as { action: { onClick: () => void } }).action.onClick();
  expect(push).toHaveBeenCalledWith('/bench/film');
});

it('says nothing on the bench of that very film', () => {
  history.replaceState(null, '', '/bench/film');
  onScreen(<TrackingBar />);
  act(() => queue.setState({ ended: { job, state: 'failed' } }));
  expect(toast).not.toHaveBeenCalled();
  history.replaceState(null, '', '/');
  act(() => queue.setState({ ended: { job, state: 'failed' } }));
  expect(vi.mocked(toast).mock.calls[0]![0]).toBe('cross.mp4: the body was not found.');
});

it('is there while a film is worked on, with three words that say what they do', () => {
  queue.setState({ current: { job, step: null }, jobs: [job] });
  onScreen(<TrackingBar />);
  const names = screen.getAllByRole('button').map((one) => one.textContent);
  expect(names).toEqual(['Pause', 'Stop looking', 'Switch off for all']);
});
