import { useState } from 'react';
import { lensFromLines } from '@sinew/core/foundation/geometry/lens';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { documentOf, useBenchStore } from '../../document/benchStore';
import { setLens } from '../../document/edits';
import { Dot } from '../OverlayShapes';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';

/** From so many points on, the bow of the lens is worked out. */
const FEWEST = 5;

function Surface({ unit, at }: SurfaceProps<'straight'>) {
  const store = useBenchStore();
  const [clicked, setClicked] = useState<readonly PixelPoint[]>([]);
  const add = (point: PixelPoint) => {
    const points = [...clicked, point];
    setClicked(points);
    if (points.length < FEWEST) return;
    const state = store.getState();
    const { bend } = lensFromLines([points], state.clip);
    state.edit(setLens(documentOf(state), { bend }), 'straighten');
  };
  return (
    <>
      <Catcher onPointerDown={(event) => add(at(event))} />
      {clicked.map((point, i) => (
        <Dot key={i} at={point} unit={unit} />
      ))}
    </>
  );
}

/** Finds how a wide lens bows straight edges. */
export const STRAIGHT: PictureTool<'straight'> = {
  Says: () =>
    'Click five or more places along an edge that is straight in truth, near the border. Esc ends.',
  Surface,
};
