import { useState } from 'react';
import { clipCalibration } from '@sinew/core/analysis/clipCalibration';
import { placingSigmaOf } from '@sinew/core/observe/track/track';
import type { Line } from '@sinew/core/reconstruct/calibration/calibration';
import { lengthOf } from '@sinew/core/reconstruct/calibration/picture';
import { inManner } from '@/manner/manner';
import { documentOf, useBench } from '../../document/benchStore';
import { Measure } from '../OverlayShapes';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { useDrawnLine } from './useDrawnLine';

function Surface({ unit, at }: SurfaceProps<'ruler'>) {
  const clip = useBench((state) => state.clip);
  const document = useBench(documentOf);
  const [standing, setStanding] = useState<Line | null>(null);
  const { line, handlers } = useDrawnLine(at, setStanding);
  const shown = line ?? standing;
  const says = (measured: Line): string => {
    const { calibration } = clipCalibration(document, clip);
    const found = lengthOf(calibration, measured, placingSigmaOf(clip.height));
    return found
      ? inManner(`${(100 * found.metres).toFixed(0)} ± ${Math.ceil(100 * found.halfWidth)} cm`)
      : 'no scale yet: set a known length or a rectangle';
  };
  return (
    <>
      <Catcher
        {...handlers}
        onPointerDown={(event) => {
          setStanding(null);
          handlers.onPointerDown(event);
        }}
      />
      {shown && <Measure line={shown} unit={unit} label={says(shown)} />}
    </>
  );
}

/** Measures a length in the plane of the strike; the line stands until the next. */
export const RULER: PictureTool<'ruler'> = {
  Says: () => 'Drag along what you want to measure in the plane of the strike.',
  Surface,
};
