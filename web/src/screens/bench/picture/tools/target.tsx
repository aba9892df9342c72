import { documentOf, useBenchStore } from '../../document/benchStore';
import { setTarget } from '../../document/edits';
import { Measure } from '../OverlayShapes';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { useDrawnLine } from './useDrawnLine';

function Surface({ unit, at }: SurfaceProps<'target'>) {
  const store = useBenchStore();
  const { line, handlers } = useDrawnLine(at, (drawn) => {
    const state = store.getState();
    state.edit(setTarget(documentOf(state), drawn));
    state.setTool({ kind: 'look' });
  });
  return (
    <>
      <Catcher {...handlers} />
      {line && <Measure line={line} unit={unit} label="" />}
    </>
  );
}

/** Says which way the target is. */
export const TARGET: PictureTool<'target'> = {
  Says: () =>
    'Drag from the student to the target; with a rectangle on the floor, along the floor.',
  Surface,
};
