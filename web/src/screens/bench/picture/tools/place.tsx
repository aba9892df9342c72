import type { PointerEvent } from 'react';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import { pointsToPlace } from '@sinew/core/foundation/technique/points';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { documentOf, strikeOf, useBenchStore, type BenchState } from '../../document/benchStore';
import { placePoint } from '../../document/edits';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';

function Surface({ tool: { landmark }, at }: SurfaceProps<'place'>) {
  const store = useBenchStore();
  const place = (event: PointerEvent) => {
    const state = store.getState();
    const frame = state.shownFrame;
    if (frame === null) return;
    state.edit(placePoint(documentOf(state), landmark, frame, at(event)));
    state.selectPoint({ landmark, frame });
    if (event.shiftKey) state.goTo(frame + 1);
    else state.setTool({ kind: 'place', landmark: after(landmark, state) });
  };
  return <Catcher onPointerDown={place} />;
}

/** The point to place next: round and round those that the strike and the view want. */
function after(landmark: Landmark, state: BenchState): Landmark {
  const strike = strikeOf(state);
  if (!strike) return landmark;
  const technique = techniqueById(strike.technique);
  const wanted = pointsToPlace({ technique, side: strike.side }, documentOf(state).view);
  return wanted[(wanted.indexOf(landmark) + 1) % wanted.length] ?? landmark;
}

/** Puts a point of the body where it is clicked. */
export const PLACE: PictureTool<'place'> = {
  Says: () => 'Click it. Shift-click: next frame.',
  Surface,
};
