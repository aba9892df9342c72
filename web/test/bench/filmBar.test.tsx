// @vitest-environment happy-dom
/** Under the picture: how fast it plays, what round, the trail, and the body beside the lanes. */
import { act, cleanup, fireEvent, screen } from '@testing-library/react';
import { useRef } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Placed } from '@sinew/core/observe/track/track';
import { FilmBar } from '@/screens/bench/picture/FilmBar';
import { Trails } from '@/screens/bench/picture/Trails';
import { useLens } from '@/screens/bench/picture/useLens';
import { PoseFigure } from '@/screens/bench/strip/PoseFigure';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { commandsNow } from '@/ui/commands/registry';
import { benchWith, onBench, strikeIn } from './kit';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: vi.fn() }) }));
vi.mock('@/screens/bench/panel/what-if/chainModel', async () =>
  (await import('./doubles')).chainModelHere(),
);
afterEach(cleanup);

function Bar() {
  const stage = useRef<HTMLDivElement>(null);
  const view = useLens(stage);
  return (
    <>
      <div ref={stage} data-testid="lens">
        {`${view.lens.zoom.toFixed(2)} ${view.lens.x.toFixed(2)} ${view.lens.y.toFixed(2)}`}
      </div>
      <FilmBar view={view} stage={stage} />
    </>
  );
}
const key = (name: string) => fireEvent.keyDown(document.body, { key: name });
const lens = () => screen.getByTestId('lens').textContent;

const hand = (x: number, y: number): Placed => ({ landmark: 'rightWrist', frame: 0, x, y });

describe('the bar under the picture', () => {
  it('plays at an eighth to true speed, and keys make it slower and faster', () => {
    const { store } = onBench(benchWith(), () => <Bar />);
    expect(screen.getByRole('button', { name: '⅛ of true speed', pressed: true })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: '1 of true speed' }));
    expect(store.getState().pace).toBe(1);
    key(']');
    expect(store.getState().pace).toBe(1);
    key('[');
    expect(store.getState().pace).toBe(1 / 2);
  });

  it('plays the phase of the frame in hand round and round, and lets go of it', () => {
    const { store } = onBench(benchWith(), () => <Bar />);
    const { trunk, contact } = strikeIn(store).marks;
    store.getState().goTo((trunk!.frame + contact!.frame) >> 1);
    key('c');
    expect(store.getState()).toMatchObject({ isPlaying: true, loop: { name: 'Accelerate' } });
    fireEvent.click(screen.getByRole('button', { name: 'Stop going round in Accelerate' }));
    expect(store.getState().loop).toBeNull();
  });

  it('follows the striking hand, rests where it was seen last, and shows the whole again', () => {
    const placed = [hand(960, 180)];
    const { store } = onBench(benchWith({ document: { placed } }), () => <Bar />);
    expect(screen.getByRole('button', { name: 'Follow' })).toHaveProperty('disabled', true);
    act(() => store.getState().shown(0));
    fireEvent.click(screen.getByRole('button', { name: 'Follow' }));
    // The hand is a quarter to the right of the middle and a quarter above it, at 2.5 times.
    expect(lens()).toBe('2.50 -0.63 0.63');
    act(() => store.getState().shown(40));
    expect(lens()).toBe('2.50 -0.63 0.63');
    key('0');
    expect(lens()).toBe('1.00 0.00 0.00');
    key('+');
    expect(lens()).toMatch(/^1\.40 /);
  });

  it('has a key for everything that is a button', () => {
    onBench(benchWith(), () => <Bar />);
    const keys = commandsNow().flatMap((one) => one.keys ?? []);
    for (const one of ['[', ']', 'c', 'o', 'f', '+', '-', '0', 'Shift+s'])
      expect(keys).toContain(one);
  });
});

describe('the trail', () => {
  it('is the way of hand, elbow and belt since the load, only when it is wanted', () => {
    const wayOf = vi.fn(() => [
      { x: 0, y: 0 },
      { x: 10, y: 5 },
    ]);
    const { store } = onBench(benchWith(), () => (
      <svg>
        <Trails wayOf={wayOf} unit={1} />
      </svg>
    ));
    expect(wayOf).not.toHaveBeenCalled();
    act(() => {
      store.getState().showTrail(true);
      store.getState().shown(strikeIn(store).marks.contact!.frame);
    });
    expect(document.querySelectorAll('[data-trails] > g')).toHaveLength(3);
    const of = wayOf.mock.calls as unknown as [string, number, number][];
    expect(new Set(of.map(([landmark]) => landmark))).toEqual(
      new Set(['rightIndexKnuckle', 'rightWrist', 'rightElbow', 'leftHip', 'rightHip']),
    );
    expect(of[0]![2]).toBeGreaterThan(of[0]![1]);
  });
});

describe('the figure beside the lanes', () => {
  const parts = ['Shoulder', 'Elbow', 'Wrist', 'Hip', 'Knee', 'Ankle'] as const;
  const body = (['left', 'right'] as const).flatMap((side, k) =>
    parts.map((part, i): Placed => ({
      landmark: `${side}${part}`,
      frame: 0,
      x: 400 + 40 * k,
      y: 100 + 60 * i,
    })),
  );
  const figure = (placed: Placed[]) =>
    onBench(benchWith({ document: { placed } }), () => (
      <PoseFigure technique={techniqueById('cross')} side="right" links={{}} />
    ));

  it('is the body as it stands on the frame, and a plain one where it is not known', () => {
    figure(body);
    expect(document.querySelector('[data-pose]')).toBeTruthy();
    cleanup();
    figure(body.slice(0, 7));
    expect(document.querySelector('[data-pose]')).toBeNull();
  });
});
