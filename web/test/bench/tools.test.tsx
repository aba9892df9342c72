// @vitest-environment happy-dom
/** The tools of the picture, each by what a click or a drag leaves in the document. */
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { BenchContext, type Tool } from '@/screens/bench/document/benchStore';
import { MOST_DRAWINGS, MOST_POINTS, type Drawing } from '@sinew/core/analysis/drawing';
import { Drawings } from '@/screens/bench/picture/DrawingShapes';
import { DrawingShape } from '@/ui/drawingShape';
import { standingAlone } from '@/video/frameFile';
import { PictureTools } from '@/screens/bench/picture/PictureTools';
import { ToolSurface } from '@/screens/bench/picture/tools/tools';
import { changeJob } from '@/tracking/requests';
import { benchWith, documentIn } from './kit';

vi.mock('@/screens/bench/panel/what-if/chainModel', async () =>
  (await import('./doubles')).chainModelHere(),
);
vi.mock('@/api/client', async (original) => ({
  ...(await original<object>()),
  ask: vi.fn(async () => ({ revision: 1 })),
}));
vi.mock('@/tracking/requests', () => ({ changeJob: vi.fn(async () => undefined) }));

afterEach(cleanup);
beforeEach(() => vi.clearAllMocks());

/** A picture whose pixels are the page's. */
function picture(tool: Tool, store = benchWith()) {
  Element.prototype.setPointerCapture = vi.fn();
  store.getState().setTool(tool);
  store.getState().shown(5);
  const at = (event: { clientX: number; clientY: number }) => ({
    x: event.clientX,
    y: event.clientY,
  });
  const { container } = render(
    <BenchContext value={store}>
      <PictureTools />
      <svg>
        <ToolSurface unit={1} at={at} />
      </svg>
    </BenchContext>,
  );
  const surface = () => container.querySelector('svg > rect, svg > g > rect')!;
  const press = (x: number, y: number, more: object = {}) =>
    fireEvent.pointerDown(surface(), { clientX: x, clientY: y, button: 0, pointerId: 1, ...more });
  const drag = (from: readonly [number, number], to: readonly [number, number]) => {
    press(...from);
    fireEvent.pointerMove(surface(), { clientX: to[0], clientY: to[1], pointerId: 1 });
    fireEvent.pointerUp(surface(), { pointerId: 1 });
  };
  return { store, press, drag, surface };
}

describe('placing', () => {
  it('puts the point where it is clicked, takes it in hand, and goes on to the next', () => {
    const { store, press } = picture({ kind: 'place', landmark: 'rightWrist' });
    press(300, 200);
    expect(documentIn(store).placed).toMatchObject([
      { landmark: 'rightWrist', frame: 5, x: 300, y: 200 },
    ]);
    expect(store.getState().selectedPoint).toEqual({ landmark: 'rightWrist', frame: 5 });
    const { tool, frame } = store.getState();
    expect(tool).toMatchObject({ kind: 'place' });
    expect(tool).not.toMatchObject({ landmark: 'rightWrist' });
    expect(frame).toBe(0);
  });

  it('with Shift keeps the point and goes on to the next frame', () => {
    const { store, press } = picture({ kind: 'place', landmark: 'rightWrist' });
    press(300, 200, { shiftKey: true });
    expect(store.getState()).toMatchObject({
      tool: { kind: 'place', landmark: 'rightWrist' },
      frame: 6,
    });
  });

  it('leaves Alt and the other button to the picture', () => {
    const { store, press } = picture({ kind: 'place', landmark: 'rightWrist' });
    press(300, 200, { altKey: true });
    press(300, 200, { button: 2 });
    expect(documentIn(store).placed).toEqual([]);
  });
});

describe('a known length', () => {
  it('is a dragged line and a number of centimetres', async () => {
    const user = userEvent.setup();
    const { store, drag } = picture({ kind: 'scale' });
    drag([100, 100], [300, 100]);
    const dialog = within(await screen.findByRole('dialog'));
    await user.type(dialog.getByLabelText('Length, cm'), '125,5');
    await user.click(dialog.getByRole('button', { name: 'Set the scale' }));
    expect(documentIn(store).scale).toEqual({
      from: { x: 100, y: 100 },
      to: { x: 300, y: 100 },
      metres: 1.255,
    });
    expect(store.getState().tool).toEqual({ kind: 'look' });
  });

  it('is not set by a slip of the hand, by nonsense, or when the question is left', async () => {
    const user = userEvent.setup();
    const { store, drag } = picture({ kind: 'scale' });
    drag([100, 100], [105, 104]);
    expect(screen.queryByRole('dialog')).toBeNull();
    drag([100, 100], [300, 100]);
    const dialog = within(await screen.findByRole('dialog'));
    await user.type(dialog.getByLabelText('Length, cm'), 'a metre');
    expect(dialog.getByText(/^A length, 1 to 10000 cm/)).toBeTruthy();
    expect(dialog.getByRole('button', { name: 'Set the scale' })).toHaveProperty('disabled', true);
    await user.click(dialog.getByRole('button', { name: 'Cancel' }));
    expect(documentIn(store).scale).toBeNull();
    expect(store.getState().tool).toEqual({ kind: 'look' });
  });
});

describe('the other lines', () => {
  it('to the target is drawn and kept', () => {
    const { store, drag } = picture({ kind: 'target' });
    drag([10, 20], [210, 60]);
    expect(documentIn(store).target).toEqual({ from: { x: 10, y: 20 }, to: { x: 210, y: 60 } });
    expect(store.getState().tool).toEqual({ kind: 'look' });
  });

  it('of the ruler says a length with its ±, or what is missing, and changes nothing', () => {
    const bare = picture({ kind: 'ruler' });
    const before = documentIn(bare.store);
    bare.drag([10, 20], [210, 20]);
    expect(screen.getByText(/no scale yet/)).toBeTruthy();
    expect(documentIn(bare.store)).toBe(before);
    cleanup();
    const scale = { from: { x: 0, y: 0 }, to: { x: 100, y: 0 }, metres: 1 };
    const set = picture({ kind: 'ruler' }, benchWith({ document: { scale } }));
    set.drag([10, 20], [210, 20]);
    const said = /^200 ± (\d+) cm$/.exec(screen.getByText(/ cm$/).textContent ?? '');
    expect(Number(said?.[1])).toBeGreaterThan(0);
  });

  it('round the student sets the tracker to work on whoever is in it', async () => {
    const { store, drag } = picture({ kind: 'person' });
    drag([300, 400], [100, 50]);
    await waitFor(() => expect(changeJob).toHaveBeenCalledOnce());
    expect(vi.mocked(changeJob).mock.calls[0]).toMatchObject([
      'clip',
      { kind: 'start', person: { frame: 5, box: { x: 100, y: 50, width: 200, height: 350 } } },
    ]);
    expect(store.getState().tool).toEqual({ kind: 'look' });
  });
});

describe('corners', () => {
  it('of a rectangle are clicked in order, and its sides asked for', async () => {
    const user = userEvent.setup();
    const { store, press } = picture({ kind: 'rectangle', of: 'floor' });
    const corners = [
      [100, 500],
      [600, 500],
      [500, 400],
      [200, 400],
    ] as const;
    for (const [x, y] of corners) press(x, y);
    const dialog = within(await screen.findByRole('dialog'));
    const fields = dialog.getAllByRole('textbox');
    await user.type(fields[0]!, '3');
    await user.type(fields[1]!, '2');
    await user.click(dialog.getAllByRole('button')[0]!);
    expect(documentIn(store).rectangle).toMatchObject({
      kind: 'floor',
      width: 3,
      depth: 2,
      corners: corners.map(([x, y]) => ({ x, y })),
    });
  });

  it('along a straight edge find the bow of the lens from the fifth on, as one change', () => {
    const { store, press } = picture({ kind: 'straight' });
    // A bowed edge near the top of a picture 1280 by 720.
    const bowed = [100, 350, 640, 930, 1180].map((x) => [x, 40 + ((x - 640) / 640) ** 2 * 14]);
    bowed.slice(0, 4).forEach(([x, y]) => press(x!, y!));
    expect(documentIn(store).lens).toBeNull();
    press(bowed[4]![0]!, bowed[4]![1]!);
    press(1230, 40 + ((1230 - 640) / 640) ** 2 * 14);
    expect(documentIn(store).lens!.bend).not.toBe(0);
    store.getState().undo();
    expect(documentIn(store).lens).toBeNull();
  });

  it('that were begun go with their tool', () => {
    const { store, press } = picture({ kind: 'straight' });
    [100, 350, 640, 930].forEach((x) => press(x, 40));
    const { setTool } = store.getState();
    act(() => setTool({ kind: 'look' }));
    act(() => setTool({ kind: 'straight' }));
    press(1180, 40);
    expect(documentIn(store).lens).toBeNull();
  });
});

it('every tool says what to do with it while it is in hand, and none says nothing', () => {
  const tools: Tool[] = [
    { kind: 'place', landmark: 'nose' },
    { kind: 'scale' },
    { kind: 'target' },
    { kind: 'rectangle', of: 'floor' },
    { kind: 'rectangle', of: 'upright' },
    { kind: 'rectangle', of: 'box' },
    { kind: 'straight' },
    { kind: 'person' },
    { kind: 'ruler' },
  ];
  const said = tools.map((tool) => {
    picture(tool);
    const text = document.querySelector('p')?.textContent ?? '';
    cleanup();
    return text;
  });
  expect(new Set(said).size).toBe(tools.length);
  for (const text of said) expect(text).toMatch(/^(Click|Drag) .*\.$/);
  const { surface } = picture({ kind: 'look' });
  expect(surface()).toBeNull();
  expect(document.querySelector('p')).toBeNull();
});

describe('drawing by hand', () => {
  const drawn = (store: ReturnType<typeof benchWith>) =>
    (documentIn(store).drawings ?? []).map(({ id: _, ...one }) => one);

  it('puts an arrow on the frame that is shown, and undo takes it away', () => {
    const { store, drag } = picture({ kind: 'draw', of: 'arrow' });
    drag([10, 20], [210, 60]);
    expect(drawn(store)).toEqual([
      {
        kind: 'arrow',
        frame: 5,
        points: [
          { x: 10, y: 20 },
          { x: 210, y: 60 },
        ],
      },
    ]);
    drag([10, 20], [12, 21]);
    expect(drawn(store)).toHaveLength(1);
    store.getState().undo();
    expect(drawn(store)).toEqual([]);
  });

  it('takes an angle in three clicks and says how wide it is while it is drawn', () => {
    const { store, press, surface } = picture({ kind: 'draw', of: 'angle' });
    press(100, 0);
    press(0, 0);
    fireEvent.pointerMove(surface(), { clientX: 0, clientY: 80, pointerId: 1 });
    expect(screen.getByText('90°')).toBeTruthy();
    expect(drawn(store)).toEqual([]);
    press(0, 100);
    expect(drawn(store)).toMatchObject([{ kind: 'angle', points: [{}, { x: 0, y: 0 }, {}] }]);
  });

  it('keeps a freehand line with no more points than it needs', () => {
    const { store, press, surface } = picture({ kind: 'draw', of: 'free' });
    press(0, 0);
    for (let x = 1; x <= 100; x++) {
      fireEvent.pointerMove(surface(), { clientX: x, clientY: x < 50 ? 0 : x - 50, pointerId: 1 });
    }
    fireEvent.pointerUp(surface(), { pointerId: 1 });
    const { points } = drawn(store)[0]!;
    expect(points[0]).toEqual({ x: 0, y: 0 });
    expect(points.at(-1)).toEqual({ x: 100, y: 50 });
    expect(points.length).toBeLessThan(6);
  });

  it('keeps the whole of a line that shakes without end, and refuses what a clip cannot hold', () => {
    const { store, press, surface } = picture({ kind: 'draw', of: 'free' });
    press(0, 0);
    for (let x = 1; x <= 1500; x++) {
      fireEvent.pointerMove(surface(), { clientX: x, clientY: 9 * (x % 2), pointerId: 1 });
    }
    fireEvent.pointerUp(surface(), { pointerId: 1 });
    const { points } = drawn(store)[0]!;
    expect(points.length).toBeLessThanOrEqual(MOST_POINTS);
    expect(points.at(-1)).toEqual({ x: 1500, y: 0 });
    cleanup();
    const one = {
      kind: 'line',
      frame: 1,
      points: [
        { x: 0, y: 0 },
        { x: 9, y: 9 },
      ],
    } as const;
    const drawings = Array.from({ length: MOST_DRAWINGS }, (_, i) => ({
      ...one,
      id: String(i),
      points: [...one.points],
    }));
    const full = picture({ kind: 'draw', of: 'line' }, benchWith({ document: { drawings } }));
    full.drag([10, 20], [210, 60]);
    expect(documentIn(full.store).drawings!.map(({ id }) => id)).toEqual(
      drawings.map(({ id }) => id),
    );
  });

  it('writes words where it is clicked, and none where none are given', async () => {
    const user = userEvent.setup();
    const { store, press } = picture({ kind: 'draw', of: 'words' });
    press(40, 50);
    await user.type(screen.getByLabelText('Words'), ' Step back ');
    await user.click(screen.getByRole('button', { name: 'Put it there' }));
    press(40, 90);
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(drawn(store)).toEqual([
      { kind: 'words', frame: 5, points: [{ x: 40, y: 50 }], text: 'Step back' },
    ]);
  });
});

describe('what is drawn', () => {
  const arrow: Drawing = {
    id: 'a',
    kind: 'arrow',
    frame: 5,
    points: [
      { x: 0, y: 0 },
      { x: 50, y: 0 },
    ],
  };

  it('stands on its own frame only; a click takes it in hand', () => {
    const store = benchWith({ document: { drawings: [arrow, { ...arrow, id: 'b', frame: 6 }] } });
    store.getState().shown(5);
    const { container } = render(
      <BenchContext value={store}>
        <svg>
          <Drawings unit={1} />
        </svg>
      </BenchContext>,
    );
    const [own, ...others] = container.querySelectorAll('[data-drawing]');
    expect(others).toEqual([]);
    fireEvent.pointerDown(own!, { button: 0 });
    expect(store.getState().selectedDrawing).toBe('a');
    store.getState().selectPoint(null);
    expect(store.getState().selectedDrawing).toBeNull();
  });

  it('goes into a file that stands alone: no clicks, no looks of the page, the picture behind it', () => {
    const { container } = render(
      <svg viewBox="0 0 1280 720" className="absolute">
        <rect width={9} height={9} fill="transparent" />
        <g>
          <title>Corner 1</title>
          <circle r={5} fill="transparent" stroke="#fff" />
        </g>
        <DrawingShape drawing={arrow} unit={1} />
      </svg>,
    );
    const overlay = container.querySelector('svg')!;
    Object.defineProperty(overlay, 'viewBox', {
      value: { baseVal: { width: 1280, height: 720 } },
    });
    const file = new DOMParser().parseFromString(
      standingAlone(overlay, 'data:image/jpeg;base64,AAAA'),
      'image/svg+xml',
    );
    expect(file.querySelector('parsererror')).toBeNull();
    expect(file.documentElement.getAttribute('width')).toBe('1280');
    expect(file.documentElement.firstElementChild!.getAttribute('href')).toMatch(/^data:image/);
    expect(file.querySelectorAll('title, rect, [class]')).toHaveLength(0);
    expect(file.querySelectorAll('circle')).toHaveLength(1);
    expect(file.querySelectorAll('path').length).toBeGreaterThan(1);
  });
});
