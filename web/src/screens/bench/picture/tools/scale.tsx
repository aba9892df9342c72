import { useState } from 'react';
import type { Line } from '@sinew/core/reconstruct/calibration/calibration';
import { documentOf, useBenchStore } from '../../document/benchStore';
import { setScale } from '../../document/edits';
import { Measure } from '../OverlayShapes';
import { LengthDialog } from './LengthDialog';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { useDrawnLine } from './useDrawnLine';

function Surface({ unit, at }: SurfaceProps<'scale'>) {
  const store = useBenchStore();
  const [asked, setAsked] = useState<Line | null>(null);
  const { line, handlers } = useDrawnLine(at, setAsked);
  const settle = (metres: number | null) => {
    const state = store.getState();
    if (metres !== null && asked) state.edit(setScale(documentOf(state), { ...asked, metres }));
    state.setTool({ kind: 'look' });
  };
  return (
    <>
      <Catcher {...handlers} />
      {line && <Measure line={line} unit={unit} label="" />}
      {asked && <LengthDialog onDone={settle} />}
    </>
  );
}

/** Makes metres of pixels: a line along something of known length. */
export const SCALE: PictureTool<'scale'> = {
  Says: () => 'Drag along a known length in the plane of the strike.',
  Surface,
};
