import { useEffect, type PointerEvent } from 'react';
import { landmarkName } from '@sinew/core/foundation/body/landmarks';
import { framesOfTurn, leftToMark } from '@sinew/core/observe/track/turnMarks';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { placePoint } from '../../document/edits';
import { useRealTimes } from '../../document/realTimes';
import { useAnalysis } from '../../document/useAnalysis';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';

/** What is marked of the turn into the strike in hand, and what comes next; null before contact is known. */
function useTurnMarks() {
  const contact = useAnalysis()?.events.contact?.time;
  const placed = useBench((state) => documentOf(state).placed);
  const times = useRealTimes();
  if (contact === undefined) return null;
  const frames = framesOfTurn(times, contact);
  return { frames, next: leftToMark(placed, frames)[0] ?? null };
}

/** Leads from frame to frame; each click is the next of both hips and both shoulders. */
function Surface({ at }: SurfaceProps<'turn'>) {
  const store = useBenchStore();
  const next = useTurnMarks()?.next ?? null;
  const wanted = next?.frame;
  useEffect(() => {
    if (wanted !== undefined) store.getState().goTo(wanted);
  }, [store, wanted]);
  const mark = (event: PointerEvent) => {
    const state = store.getState();
    if (!next) return;
    // Another frame's picture, or one that has not come yet: the mark would be that one's.
    if (state.shownFrame !== next.frame) return state.goTo(next.frame);
    state.edit(placePoint(documentOf(state), next.landmark, next.frame, at(event)));
  };
  return <Catcher onPointerDown={mark} />;
}

function Says() {
  const turn = useTurnMarks();
  if (!turn) return <>Mark contact first.</>;
  const { frames, next } = turn;
  if (!next) return <>All is marked. Escape puts the tool away.</>;
  return (
    <>
      Click the <strong className="text-ink">{landmarkName(next.landmark)}</strong>, where the joint
      is under the clothes. Frame {frames.indexOf(next.frame) + 1} of {frames.length}.
    </>
  );
}

/** Both hips and both shoulders through the turn, frame by frame. */
export const TURN: PictureTool<'turn'> = { Says, Surface };
