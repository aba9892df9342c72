// @vitest-environment happy-dom
/** Two strikes over one scrubber: stepped and played by the keys that the bench has. */
import { act, cleanup, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { StrikeToCompare } from '@/data/finding/comparing';
import { CompareScreen } from '@/screens/compare/CompareScreen';
import { onScreen } from './kit';

vi.mock('next/navigation', () => ({
  useRouter: () => ({ push: vi.fn() }),
  usePathname: () => '/compare',
}));

// Time goes by where the test says so.
let frames: ((at: number) => void)[] = [];
let clock = 0;
beforeEach(() => {
  frames = [];
  clock = 0;
  vi.spyOn(performance, 'now').mockImplementation(() => clock);
  vi.stubGlobal('requestAnimationFrame', (frame: (at: number) => void) => frames.push(frame));
  vi.stubGlobal('cancelAnimationFrame', () => {
    frames = [];
  });
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});
const goBy = (ms: number) =>
  act(() => {
    clock += ms;
    const due = frames;
    frames = [];
    due.forEach((frame) => frame(clock));
  });

const strike = (id: string) =>
  ({
    strike: { id, clipId: id, technique: 'cross', day: '2026-05-01', view: 'side', intent: null },
    fileName: `${id}.mp4`,
    film: null,
    set: [],
  }) as unknown as StrikeToCompare;
const draw = () =>
  onScreen(
    <CompareScreen
      student={{ id: 'ada', name: 'Ada Storm' }}
      then={strike('a')}
      now={strike('b')}
      ofStrikes={[]}
      ofSets={null}
    />,
  );
const time = () => screen.getByRole('slider', { name: 'Time from contact' });

it('plays at an eighth of true speed, round and round, and stops where a frame is stepped', async () => {
  const { user } = draw();
  expect(time().getAttribute('aria-valuetext')).toBe('at contact');
  await user.keyboard(' ');
  goBy(800);
  expect(time().getAttribute('aria-valuetext')).toBe('100 ms after contact');
  // 400 ms after contact is the end: it goes on before contact.
  goBy(2400);
  expect(time().getAttribute('aria-valuetext')).toBe('600 ms before contact');
  await user.keyboard(']');
  goBy(800);
  expect(time().getAttribute('aria-valuetext')).toBe('400 ms before contact');
  await user.keyboard('{ArrowRight}');
  expect(time().getAttribute('aria-valuetext')).toBe('390 ms before contact');
  goBy(800);
  expect(time().getAttribute('aria-valuetext')).toBe('390 ms before contact');
  expect(screen.getByRole('button', { name: /^Play/ })).toBeDefined();
});
