// @vitest-environment happy-dom
/** Hips and shoulders from above, on the frame in hand. */
import { act, cleanup, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { mover } from '@sinew/fighters/fighter/pose';
import { clean, FAULT_CHANGES } from '@sinew/fighters/fighter/recipe';
import { TurnDial } from '@/screens/bench/picture/TurnDial';
import { benchWith, onBench } from './kit';

vi.mock('@/screens/bench/document/actions', async () =>
  (await import('./doubles')).actionsThatKeep(),
);

afterEach(cleanup);

const heading = (left: readonly number[], right: readonly number[]) =>
  (Math.atan2(right[0]! - left[0]!, right[2]! - left[2]!) * 180) / Math.PI;

it('says how far the hips are ahead, as the made-up body has it, and follows the film', () => {
  const store = benchWith();
  onBench(store, () => <TurnDial />);
  const pose = mover(clean('cross', FAULT_CHANGES.jammed));
  const times = store.getState().clip.frameTimes;
  for (const frame of [60, 130, 150]) {
    act(() => store.getState().goTo(frame));
    const now = pose(times[frame]!);
    const apart = heading(now.leftHip, now.rightHip) - heading(now.leftShoulder, now.rightShoulder);
    const text = screen.getByRole('figure', { name: /from above/ }).textContent!;
    const [, who, size] = /^(Hips|Shoulders) (\d+) ± \d+° ahead \(in space\)$/.exec(text)!;
    const told = (who === 'Hips' ? 1 : -1) * Number(size);
    expect(Math.abs(told - apart), `frame ${frame}: ${text}`).toBeLessThan(1.5);
  }
});

it('is not there where nothing tells it', () => {
  onBench(benchWith({ start: { series: null } }), () => <TurnDial />);
  expect(screen.queryByRole('figure')).toBeNull();
});
