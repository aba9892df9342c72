'use client';

import { eventsOf, wordsFor } from '@sinew/core/measure/events/events';
import type { Command } from '@/ui/commands/command';
import { useCommands } from '@/ui/commands/registry';
import { stepping } from '@/ui/commands/stepping';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import {
  documentOf,
  strikeOf,
  useBench,
  useBenchStore,
  type BenchState,
} from '../document/benchStore';
import { ANY_TECHNIQUE, EVENT_KEY } from '../strip/lanes';
import { useSwap } from '../picture/SecondPicture';
import { clearMark, neighbourMark, removeDrawing, removePoint, widenMark } from '../document/edits';

function removeSelected(state: BenchState): void {
  const strike = strikeOf(state);
  const { selectedPoint, selectedMark, selectedDrawing } = state;
  if (selectedDrawing) {
    state.edit(removeDrawing(documentOf(state), selectedDrawing));
    state.selectDrawing(null);
    return;
  }
  if (selectedPoint && selectedPoint.frame === state.shownFrame) {
    state.edit(removePoint(documentOf(state), selectedPoint.landmark, selectedPoint.frame));
    state.selectPoint(null);
  } else if (selectedMark && strike) {
    state.edit(clearMark(documentOf(state), strike.id, selectedMark));
    state.selectMark(null);
  }
}

function widen(state: BenchState, by: 2 | -2): void {
  const strike = strikeOf(state);
  if (strike && state.selectedMark) {
    state.edit(widenMark(documentOf(state), strike.id, state.selectedMark, by));
  }
}

/** Without a strike, as in the second film of a take, any point may be placed. */
function startPlacing(state: BenchState): void {
  const strike = strikeOf(state);
  const points = strike
    ? pointsToPlace(
        { technique: techniqueById(strike.technique), side: strike.side },
        documentOf(state).view,
      )
    : [];
  const landmark = points[0] ?? 'nose';
  state.setTool(state.tool.kind === 'place' ? { kind: 'look' } : { kind: 'place', landmark });
}

function toMark(state: BenchState, direction: 1 | -1): void {
  const strike = strikeOf(state);
  const next = strike && neighbourMark(strike, state.frame, direction);
  if (!next) return;
  state.goTo(next.frame);
  state.selectMark(next.event);
}

const MARKS = 'Mark an instant; again on its frame takes the mark away';

/** What the bench can do to the document and the picture, whatever tab is open. */
export function BenchKeys() {
  const store = useBenchStore();
  const swap = useSwap();
  const strike = useBench(strikeOf);
  const state = () => store.getState();
  const of = (
    group: string,
    all: readonly (readonly [keys: string | readonly string[], words: string, run: () => void])[],
  ) =>
    all.map(([keys, words, run]): Command => {
      const list = typeof keys === 'string' ? [keys] : keys;
      return { id: `${group} ${list[0]}`, keys: list, words, group, run };
    });
  const technique = strike ? techniqueById(strike.technique) : ANY_TECHNIQUE;

  useCommands(() => [
    ...stepping((by) => state().goTo(state().frame + by)),
    ...of('Through the film', [
      ['ArrowUp', 'mark before', () => toMark(state(), -1)],
      ['ArrowDown', 'mark after', () => toMark(state(), 1)],
      ['Home', 'first frame', () => state().goTo(0)],
      ['End', 'last frame', () => state().goTo(Infinity)],
      [' ', 'play, stop', () => state().setPlaying(!state().isPlaying)],
    ]),
    ...eventsOf(technique).map((name): Command => {
      const { name: called, meaning } = wordsFor(name, technique);
      return {
        id: `mark ${name}`,
        keys: [String(EVENT_KEY[name])],
        words: `${called}: ${meaning}`,
        group: MARKS,
        run: () => state().mark(name),
      };
    }),
    ...of(MARKS, [
      ['w', 'less sure of the chosen mark', () => widen(state(), 2)],
      ['Shift+w', 'surer of it', () => widen(state(), -2)],
    ]),
    ...of('Picture', [
      ['p', 'place points; again to stop', () => startPlacing(state())],
      [
        'Shift+p',
        'mark the turn of hips and shoulders, frame by frame; again to stop',
        () => state().setTool({ kind: state().tool.kind === 'turn' ? 'look' : 'turn' }),
      ],
      ['l', 'draw a known length', () => state().setTool({ kind: 'scale' })],
      ['t', 'draw the line to the target', () => state().setTool({ kind: 'target' })],
      [
        'r',
        'click the corners of a rectangle of known sides',
        () => state().setTool({ kind: 'rectangle', of: 'floor' }),
      ],
      [
        'i',
        'draw on the frame; again to stop',
        () =>
          state().setTool(
            state().tool.kind === 'draw' ? { kind: 'look' } : { kind: 'draw', of: 'arrow' },
          ),
      ],
      ['m', 'measure a length in the picture', () => state().setTool({ kind: 'ruler' })],
      [
        'b',
        'box round the student, for the body tracker',
        () => state().setTool({ kind: 'person' }),
      ],
      ['v', 'go to the film of the other side', swap],
      [
        'Escape',
        'put the tool away, and what is drawn as evidence',
        () => {
          state().setTool({ kind: 'look' });
          state().hideEvidence();
        },
      ],
    ]),
    ...of('Change', [
      [
        ['Delete', 'Backspace'],
        'remove the chosen mark, point or drawing',
        () => removeSelected(state()),
      ],
      ['Mod+z', 'undo', () => state().undo()],
      [['Mod+Shift+z', 'Mod+y'], 'redo', () => state().redo()],
    ]),
  ]);
  return null;
}
