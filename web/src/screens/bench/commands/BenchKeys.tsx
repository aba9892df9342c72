'use client';

import { useHotkeys, type Options } from 'react-hotkeys-hook';
import { EVENTS, eventsOf, wordsFor } from '@sinew/core/measure/events/events';
import { KeysHelp, type KeyList } from '@/ui/keysHelp';
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
import { clearMark, neighbourMark, removePoint, widenMark } from '../document/edits';

/** The strip is a slider to assistive software, and still a place where every key works. */
export const NOT_WHILE_TYPING = {
  enableOnFormTags: ['slider'],
  preventDefault: true,
  // The arrows choose among tabs while a tab has the keys.
  ignoreEventWhen: (event) => (event.target as HTMLElement).closest('[role=tablist]') !== null,
} satisfies Options;

function removeSelected(state: BenchState): void {
  const strike = strikeOf(state);
  const { selectedPoint, selectedMark } = state;
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
  const frame = strike && neighbourMark(strike, state.frame, direction);
  if (frame !== null) state.goTo(frame);
}

/** Every key of the bench that is not a button's own. */
export function BenchKeys() {
  const store = useBenchStore();
  const on = (keys: string, act: (state: BenchState) => void) =>
    // The list of keys is fixed, so the hooks are always called in the same order.
    // eslint-disable-next-line react-hooks/rules-of-hooks
    useHotkeys(keys, () => act(store.getState()), NOT_WHILE_TYPING);

  on('right', (state) => state.goTo(state.frame + 1));
  on('left', (state) => state.goTo(state.frame - 1));
  on('shift+right', (state) => state.goTo(state.frame + 10));
  on('shift+left', (state) => state.goTo(state.frame - 10));
  on('home', (state) => state.goTo(0));
  on('end', (state) => state.goTo(Infinity));
  on('down', (state) => toMark(state, 1));
  on('up', (state) => toMark(state, -1));
  useHotkeys(
    EVENTS.map((_, index) => String(index + 1)),
    (event) => {
      const name = EVENTS[Number(event.key) - 1];
      if (name) store.getState().mark(name);
    },
    NOT_WHILE_TYPING,
  );
  on('delete, backspace', removeSelected);
  on('w', (state) => widen(state, 2));
  on('shift+w', (state) => widen(state, -2));
  on('p', startPlacing);
  on('l', (state) => state.setTool({ kind: 'scale' }));
  on('t', (state) => state.setTool({ kind: 'target' }));
  on('r', (state) => state.setTool({ kind: 'rectangle', of: 'floor' }));
  on('m', (state) => state.setTool({ kind: 'ruler' }));
  on('b', (state) => state.setTool({ kind: 'person' }));
  useHotkeys('v', useSwap(), NOT_WHILE_TYPING);
  on('escape', (state) => {
    state.setTool({ kind: 'look' });
    state.hideEvidence();
  });
  on('mod+z', (state) => state.undo());
  on('mod+shift+z, mod+y', (state) => state.redo());
  useHotkeys(
    'space',
    () => {
      const { isPlaying, setPlaying } = store.getState();
      setPlaying(!isPlaying);
    },
    {
      ...NOT_WHILE_TYPING,
      ignoreEventWhen: (event) =>
        (event.target as HTMLElement).closest('button, a, summary') !== null,
    },
  );
  return null;
}

const HELP: KeyList = [
  ['← →', 'one frame back, one on'],
  ['Shift ← →', 'ten frames'],
  ['↑ ↓', 'mark before, mark after'],
  ['Home End', 'first frame, last frame'],
  ['Space', 'play slowly, stop'],
  ['P', 'place points; again to stop'],
  ['L', 'draw a known length'],
  ['T', 'draw the line to the target'],
  ['R', 'click the corners of a rectangle of known sides'],
  ['M', 'measure a length in the picture'],
  ['V', 'go to the film of the other side; Shift V hides its picture'],
  ['Y', 'what was found is a strike; X it is none; G see it'],
  ['B', 'box round the student, for the body tracker'],
  ['D', 'next doubtful point; K right as it is, H cannot be seen, S swap left and right'],
  ['Esc', 'put the tool away, and what is drawn as evidence'],
  ['W', 'less sure of the chosen mark; Shift W surer'],
  ['Delete', 'remove the chosen mark or point'],
  ['Ctrl Z', 'undo; Ctrl Shift Z redo'],
  ['Z', 'strip: whole clip or this strike'],
  ['Enter', 'use the cue of the first leak'],
  ['N', 'not so: dismiss the first leak'],
  ['J', 'not now: leave the first leak for later'],
  ['U', 'give the work for the cue'],
  ['Q E A', 'under Eye: drives, neutral, drags; , and . back and on'],
];

export function BenchKeysHelp() {
  const strike = useBench(strikeOf);
  const technique = strike ? techniqueById(strike.technique) : ANY_TECHNIQUE;
  const events = eventsOf(technique).map((event) => {
    const { name, meaning } = wordsFor(event, technique);
    return [String(EVENT_KEY[event]), `${name}: ${meaning}`] as const;
  });
  return (
    <KeysHelp
      keys={[...events, ...HELP]}
      note="Pressing an event’s key again on its own frame takes the mark away."
    />
  );
}
