// @vitest-environment happy-dom
/** The chain strip, the keys of the bench, and strikes that Sinew has found. */
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import type { Survey } from '@sinew/core/observe/take/survey';
import { BenchKeys } from '@/screens/bench/commands/BenchKeys';
import { AutomaticAsked } from '@/screens/bench/document/AutomaticStrikes';
import { StrikesFound } from '@/screens/bench/panel/StrikesFound';
import { ChainStrip } from '@/screens/bench/strip/ChainStrip';
import { lanesOf } from '@/screens/bench/strip/lanes';
import { restsOn, whyEmpty } from '@/screens/bench/strip/StripEvidence';
import { commandsNow } from '@/ui/commands/registry';
import { benchWith, documentIn, jammedCross, onBench, strikeIn } from './kit';

vi.mock('next/navigation', () => ({ useRouter: () => ({ push: vi.fn() }) }));
vi.mock('@/screens/bench/panel/what-if/chainModel', async () =>
  (await import('./doubles')).chainModelHere(),
);
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(async () => ({ revision: 1 })),
}));

afterEach(cleanup);
beforeEach(() => {
  // The page has no size here; the strip draws itself as wide as its box.
  vi.spyOn(HTMLElement.prototype, 'clientWidth', 'get').mockReturnValue(900);
  vi.stubGlobal(
    'ResizeObserver',
    class {
      constructor(private readonly seen: ResizeObserverCallback) {}
      observe(target: Element) {
        const entry = { target, contentRect: { width: 900 }, contentBoxSize: [] };
        this.seen([entry as unknown as ResizeObserverEntry], this as unknown as ResizeObserver);
      }
      unobserve() {}
      disconnect() {}
    },
  );
});

describe('the strip', () => {
  const strip = (store = benchWith()) => onBench(store, () => <ChainStrip />);
  const mark = (name: string) => document.querySelector<SVGElement>(`[data-event="${name}"]`)!;

  it('has every mark on its frame, and what each link does by a word', () => {
    const { store } = strip();
    for (const [name, { frame }] of Object.entries(strikeIn(store).marks)) {
      expect(mark(name).dataset.frame, name).toBe(String(frame));
      expect(mark(name).dataset.automatic, name).toBe('false');
    }
    expect(
      screen.getAllByTitle(/^(drives|neutral|drags): .*of the striking end’s speed$/).length,
    ).toBeGreaterThan(2);
  });

  it('shows what was read off the points as automatic where nobody has marked it', () => {
    const { strike } = jammedCross();
    const { hips: _, ...marks } = strike.marks;
    strip(benchWith({ strike: { ...strike, marks } }));
    expect(mark('hips').dataset.automatic).toBe('true');
    expect(
      within(mark('hips') as unknown as HTMLElement).getByText(/automatic: frame \d+/),
    ).toBeTruthy();
  });

  it('says at the end of a lane what its start rests on', () => {
    strip();
    const said = (link: string) =>
      document.querySelector(`[data-rests-on="${link}"]`)?.textContent ?? null;
    expect([said('pelvis'), said('trunk'), said('fist')]).toEqual(['by eye', 'by eye', null]);
    const mark = { frame: 30, time: 0.25, sigma: 0.01, source: 'measured-2d' } as const;
    expect(restsOn('pelvis', { contact: mark, drive: mark }, undefined)).toBe('drive only');
    expect(restsOn('trunk', { contact: mark, drive: mark }, undefined)).toBe('start not seen');
    const banded = { ...mark, source: 'measured-band' } as const;
    expect(restsOn('pelvis', { hips: banded, drive: mark }, undefined)).toBe('bands');
    const halfWay = {
      value: 0.08,
      unit: 's',
      sigma: 0.01,
      source: 'measured-2d',
      frames: [],
    } as const;
    expect(restsOn('pelvis', { contact: mark, drive: mark }, halfWay)).toBe('half-way only');
  });

  it('names every phase over its stretch; a click plays it round and round', () => {
    const { store } = strip();
    const named = [...document.querySelectorAll<SVGElement>('[data-phase]')];
    expect(named.map(({ dataset }) => dataset.phase)).toEqual([
      'load',
      'explode',
      'accelerate',
      'follow-through',
      'recover',
    ]);
    for (const one of named) expect(one.querySelector('text')!.textContent).toMatch(/\d ms$/);
    fireEvent.pointerDown(named[2]!);
    const { loop, isPlaying } = store.getState();
    expect(isPlaying).toBe(true);
    expect(loop!.name).toBe('Accelerate');
    expect(loop!.span[1] - loop!.span[0]).toBeGreaterThan(0.03);
  });

  it('leads from peak to peak, ground to striking end', () => {
    strip();
    const links = document.querySelector<SVGElement>('[data-cascade]')!.dataset.cascade!.split(' ');
    expect(links.length).toBeGreaterThan(2);
    expect(document.querySelectorAll('[data-cascade] circle')).toHaveLength(links.length);
  });

  it('says in three words why a lane is empty', () => {
    const given = {
      traces: {},
      isScaled: false,
      landmarks: ['leftHip', 'rightHip', 'rightWrist', 'leftShoulder', 'rightShoulder'],
      view: 'side' as const,
    };
    const [fist, elbow, , trunk] = lanesOf(techniqueById('cross'));
    expect(whyEmpty(fist!, given)).toBe('no length drawn');
    expect(whyEmpty(elbow!, given)).toBe('no points yet');
    expect(whyEmpty(trunk!, given)).toBe('turn not visible');
    expect(whyEmpty(trunk!, { ...given, view: 'above' })).toBe('too few points');
    const known = { times: [0], values: [0], unit: 'm/s' } as const;
    expect(whyEmpty(fist!, { ...given, traces: { fist: known } })).toBeNull();
  });

  it('is a slider over the frames: the wheel steps by one, with Shift by ten', () => {
    const { store } = strip();
    const slider = screen.getByRole('slider', { name: 'Frame' });
    fireEvent.wheel(slider, { deltaY: 1 });
    const withShift = new WheelEvent('wheel', { deltaY: 1, bubbles: true });
    Object.defineProperty(withShift, 'shiftKey', { value: true });
    fireEvent(slider, withShift);
    expect(store.getState().frame).toBe(11);
    fireEvent.wheel(slider, { deltaY: -1 });
    expect(slider.getAttribute('aria-valuenow')).toBe('10');
    expect(slider.getAttribute('aria-valuetext')).toMatch(/^frame 10, 0\.\d{3} seconds$/);
  });

  it('marks by its buttons, and takes the mark away again on its frame', async () => {
    const { store, user } = strip();
    store.getState().goTo(33);
    await user.click(screen.getByTitle(/^hips: /i));
    expect(strikeIn(store).marks.hips?.frame).toBe(33);
    await user.click(screen.getByTitle(/^hips: /i));
    expect(strikeIn(store).marks.hips).toBeUndefined();
  });

  it('takes a mark in hand and brings the picture to it', () => {
    const { store } = strip();
    const contact = mark('contact');
    contact.setPointerCapture = vi.fn();
    fireEvent.pointerDown(contact, { pointerId: 1, buttons: 1 });
    expect(store.getState()).toMatchObject({
      selectedMark: 'contact',
      frame: strikeIn(store).marks.contact!.frame,
    });
  });

  it('shows the strike or the whole clip by Z', async () => {
    const { user } = strip();
    const button = screen.getByRole('button', { name: /This strike|Whole clip/ });
    const before = button.textContent;
    await user.keyboard('z');
    expect(button.textContent).not.toBe(before);
  });
});

describe('the keys of the bench', () => {
  const keys = (store = benchWith()) => onBench(store, () => <BenchKeys />);

  it('step through the film and never beyond its ends', async () => {
    const { user, store } = keys();
    await user.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
    expect(store.getState().frame).toBe(1);
    await user.keyboard('{End}');
    expect(store.getState().frame).toBe(store.getState().clip.frameTimes.length - 1);
    await user.keyboard('{ArrowRight}{Home}{ArrowLeft}');
    expect(store.getState().frame).toBe(0);
  });

  it('go from mark to mark', async () => {
    const { user, store } = keys();
    const frames = Object.values(strikeIn(store).marks)
      .map(({ frame }) => frame)
      .sort((a, b) => a - b);
    await user.keyboard('{ArrowDown}');
    const first = frames.find((frame) => frame > 0);
    expect(store.getState().frame).toBe(first);
    // It is chosen, so that W and Delete are about it.
    const chosen = store.getState().selectedMark!;
    expect(strikeIn(store).marks[chosen]!.frame).toBe(first);
    await user.keyboard('{End}{ArrowUp}');
    expect(store.getState().frame).toBe(frames.at(-1));
  });

  it('mark an instant on the frame in hand, widen it, undo and redo it', async () => {
    const { user, store } = keys();
    store.getState().goTo(50);
    const contact = commandsNow().find(({ id }) => id === 'mark contact')!;
    await user.keyboard(contact.keys[0]!);
    expect(strikeIn(store).marks.contact).toMatchObject({ frame: 50, width: 1 });
    await user.keyboard('w');
    expect(strikeIn(store).marks.contact!.width).toBe(3);
    await user.keyboard('{Shift>}W{/Shift}');
    expect(strikeIn(store).marks.contact!.width).toBe(1);
    await user.keyboard('{Control>}zzz{/Control}');
    expect(strikeIn(store).marks.contact!.frame).not.toBe(50);
    await user.keyboard('{Control>}y{/Control}');
    expect(strikeIn(store).marks.contact!.frame).toBe(50);
  });

  it('remove the mark in hand', async () => {
    const { user, store } = keys();
    store.getState().selectMark('load');
    await user.keyboard('{Delete}');
    expect(strikeIn(store).marks.load).toBeUndefined();
    expect(store.getState().selectedMark).toBeNull();
  });

  it.each([
    ['p', 'place'],
    ['l', 'scale'],
    ['t', 'target'],
    ['r', 'rectangle'],
    ['m', 'ruler'],
    ['b', 'person'],
  ])('%s takes up the tool “%s”, and Escape puts it away', async (key, kind) => {
    const { user, store } = keys();
    await user.keyboard(key);
    expect(store.getState().tool.kind).toBe(kind);
    await user.keyboard('{Escape}');
    expect(store.getState().tool.kind).toBe('look');
  });

  it('each mean one thing, and every one has words for the help', () => {
    keys();
    const all = commandsNow();
    const pressed = all.flatMap(({ keys: own }) => own);
    expect(new Set(pressed).size).toBe(pressed.length);
    for (const { words, group } of all) {
      expect(words.length).toBeGreaterThan(3);
      expect(group.length).toBeGreaterThan(3);
    }
  });
});

describe('a strike that Sinew found by itself', () => {
  const found = () => {
    const { strike } = jammedCross();
    const [one, two] = [
      { ...strike, isAutomatic: true, span: { from: 10, to: 40 } },
      { ...strike, id: 'two', isAutomatic: true, span: { from: 50, to: 90 } },
    ] as const;
    const store = benchWith({ document: { strikes: [one, two] }, strike: one });
    return onBench(store, () => <AutomaticAsked />);
  };

  it('is the coach’s by Y, and the next one is asked about', async () => {
    const { user, store } = found();
    expect(screen.getByText('2 to confirm')).toBeTruthy();
    await user.keyboard('y');
    expect(documentIn(store).strikes.map(({ isAutomatic }) => isAutomatic === true)).toEqual([
      false,
      true,
    ]);
    expect(store.getState().strikeId).toBe('two');
    await user.keyboard('y');
    expect(screen.queryByRole('region', { name: 'Found by Sinew' })).toBeNull();
  });

  it('is gone by X, its stretch is not asked about again, and it can be undone', async () => {
    const { user, store } = found();
    await user.keyboard('x');
    expect(documentIn(store).strikes.map(({ id }) => id)).toEqual(['two']);
    expect(documentIn(store).refused.length).toBe(1);
    store.getState().undo();
    expect(documentIn(store).strikes.length).toBe(2);
  });

  it('is called by another name, on the side that name strikes with', async () => {
    const { user, store } = found();
    await user.selectOptions(screen.getByRole('combobox'), 'jab');
    expect(strikeIn(store)).toMatchObject({ technique: 'jab', side: 'left' });
  });
});

describe('strikes that are heard in a take', () => {
  const times = Array.from({ length: 600 }, (_, i) => i / 60);
  // Much moves for a third of a second before each hit.
  const hits = [3, 7];
  const survey: Survey = {
    width: 1280,
    height: 720,
    amounts: times.map((t) => (hits.some((hit) => t > hit - 0.3 && t < hit + 0.1) ? 0.2 : 0.0005)),
    repeated: 0,
    light: { middle: 0.5, contrast: 0.2, black: 0, white: 0 },
    edges: { moving: null, still: null },
    shake: null,
    moved: null,
    hasSound: true,
    hits: hits.map((time) => ({ time, sigma: 0.001, rise: 30, loudness: -10 })),
    breaths: [],
  };
  const take = () => {
    const store = benchWith({ strike: null, frameTimes: times, start: { survey } });
    return onBench(store, () => <StrikesFound />);
  };

  it('are asked about one after the other, and the picture goes there', async () => {
    const { user, store } = take();
    expect(screen.getByRole('heading').textContent).toBe('Strike 1 of 2 found?');
    expect(screen.getByText(/A hit is heard at \d\.\d{3} s, ± \d+ ms\./)).toBeTruthy();
    expect(Math.abs(store.getState().frame - 180)).toBeLessThan(4);
    await user.keyboard('y');
    const [strike] = documentIn(store).strikes;
    expect(strike).toMatchObject({ technique: 'cross', side: 'right' });
    expect(Math.abs(strike!.marks.contact!.frame - 180)).toBeLessThan(4);
    expect(screen.getByRole('heading').textContent).toBe('Strike 2 of 2 found?');
    expect(Math.abs(store.getState().frame - 420)).toBeLessThan(4);
  });

  it('that are none are set aside by X, and nothing is left to ask', async () => {
    const { user, store } = take();
    await user.keyboard('xx');
    expect(documentIn(store).strikes).toEqual([]);
    expect(documentIn(store).refused.length).toBe(2);
    expect(screen.queryByRole('region', { name: 'Strikes found' })).toBeNull();
  });
});
