import { toast } from 'sonner';
import type { Line } from '@sinew/core/reconstruct/calibration/calibration';
import { preferredModel } from '@/tracking/preference';
import { changeJob } from '@/tracking/requests';
import { useBenchStore, type BenchState } from '../../document/benchStore';
import { Outline } from '../OverlayShapes';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { useDrawnLine } from './useDrawnLine';

function Surface({ unit, at }: SurfaceProps<'person'>) {
  const store = useBenchStore();
  const { line, handlers } = useDrawnLine(at, (drawn) => {
    const state = store.getState();
    follow(drawn, state);
    state.setTool({ kind: 'look' });
  });
  return (
    <>
      <Catcher {...handlers} />
      {line && <Outline corners={cornersOf(line)} unit={unit} isQuiet />}
    </>
  );
}

const cornersOf = ({ from, to }: Line) => [
  from,
  { x: to.x, y: from.y },
  to,
  { x: from.x, y: to.y },
];

/** Whoever is in the box is tracked, anew. */
function follow({ from, to }: Line, { clip, job, shownFrame }: BenchState): void {
  const box = {
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width: Math.abs(to.x - from.x),
    height: Math.abs(to.y - from.y),
  };
  const model = job?.model ?? preferredModel();
  const person = { frame: shownFrame ?? 0, box };
  changeJob(clip.id, { kind: 'start', model, person }).catch((error: unknown) =>
    toast(error instanceof Error ? error.message : String(error)),
  );
}

/** Says who in the picture is the student. */
export const PERSON: PictureTool<'person'> = {
  Says: () =>
    'Drag a box round the student, head to feet; the body tracker follows whoever is in it.',
  Surface,
};
