import { useState } from 'react';
import {
  cornersOf,
  type PixelPoint,
  type Rectangle,
} from '@sinew/core/reconstruct/calibration/calibration';
import { documentOf, useBench, useBenchStore } from '../../document/benchStore';
import { setRectangle } from '../../document/edits';
import { Dot, Outline } from '../OverlayShapes';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { RectangleDialog } from './RectangleDialog';

function Surface({ tool, unit, at }: SurfaceProps<'rectangle'>) {
  const store = useBenchStore();
  const known = useBench((state) => documentOf(state).rectangle);
  const [corners, setCorners] = useState<readonly PixelPoint[]>([]);
  const isComplete = corners.length === cornersOf(tool.of);
  const settle = (rectangle: Rectangle | null) => {
    const state = store.getState();
    if (rectangle) {
      const copies = rectangle.corners.map((corner) => ({ ...corner }));
      state.edit(setRectangle(documentOf(state), { ...rectangle, corners: copies }));
    }
    state.setTool({ kind: 'look' });
  };
  return (
    <>
      <Catcher
        onPointerDown={(event) => {
          if (!isComplete) setCorners([...corners, at(event)]);
        }}
      />
      <Outline corners={corners} unit={unit} />
      {corners.map((corner, i) => (
        <Dot key={i} at={corner} unit={unit} />
      ))}
      {isComplete && (
        <RectangleDialog kind={tool.of} corners={corners} known={known} onDone={settle} />
      )}
    </>
  );
}

const CORNERS: Record<Rectangle['kind'], string> = {
  floor:
    'Click its four corners in order around: 1 to 2 along the way to the target. In a second film: the same corners in the same order.',
  upright:
    'Click its corners around: lower left, lower right, upper right, upper left. It stands in the plane of the strike.',
  box: 'Click the four floor corners around, then the four above them in the same order.',
};

/** Places the camera: the corners of a rectangle or box whose sides are known. */
export const RECTANGLE: PictureTool<'rectangle'> = {
  Says: ({ tool: { of } }) => CORNERS[of],
  Surface,
};
