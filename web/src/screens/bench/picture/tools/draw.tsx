import { nanoid } from 'nanoid';
import { useState, type PointerEvent } from 'react';
import { toast } from 'sonner';
import {
  MOST_DRAWINGS,
  MOST_POINTS,
  simplified,
  type Drawing,
  type DrawingKind,
} from '@sinew/core/analysis/drawing';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { Button } from '@/ui/button';
import { Dialog } from '@/ui/dialog';
import { TextField } from '@/ui/field';
import { documentOf, useBenchStore } from '../../document/benchStore';
import { addDrawing } from '../../document/edits';
import { DrawingShape } from '@/ui/drawingShape';
import { Catcher, type PictureTool, type SurfaceProps } from './pictureTool';
import { useDrawnLine } from './useDrawnLine';

/** What is drawn, to be put on the frame in hand. */
type Drawn = Pick<Drawing, 'points' | 'text'>;
type Part = Omit<SurfaceProps<'draw'>, 'tool'> & {
  readonly of: DrawingKind;
  readonly onDrawn: (drawn: Drawn) => void;
};

function Surface({ tool, ...props }: SurfaceProps<'draw'>) {
  const store = useBenchStore();
  const keep = (drawn: Drawn) => {
    const state = store.getState();
    if (state.shownFrame === null) return;
    if ((documentOf(state).drawings?.length ?? 0) >= MOST_DRAWINGS) {
      toast(`A clip holds ${MOST_DRAWINGS} drawings. Nothing is lost; take some away first.`);
      return;
    }
    const drawing = { id: nanoid(12), kind: tool.of, frame: state.shownFrame, ...drawn };
    state.edit(addDrawing(documentOf(state), drawing));
  };
  const Way =
    tool.of === 'angle'
      ? Angle
      : tool.of === 'free'
        ? Free
        : tool.of === 'words'
          ? Words
          : Straight;
  return <Way key={tool.of} of={tool.of} onDrawn={keep} {...props} />;
}

function Straight({ of, unit, at, onDrawn }: Part) {
  const { line, handlers } = useDrawnLine(at, ({ from, to }) => onDrawn({ points: [from, to] }));
  return (
    <>
      <Catcher {...handlers} />
      {line && <DrawingShape drawing={{ kind: of, points: [line.from, line.to] }} unit={unit} />}
    </>
  );
}

function Free({ of, unit, at, onDrawn }: Part) {
  const [points, setPoints] = useState<readonly PixelPoint[]>([]);
  return (
    <>
      <Catcher
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setPoints([at(event)]);
        }}
        onPointerMove={(event) => {
          if (points.length > 0) setPoints([...points, at(event)]);
        }}
        onPointerUp={() => {
          setPoints([]);
          // A line that shakes by less than a pixel of the screen is drawn with far fewer points.
          let within = unit;
          let line = simplified(points, within);
          while (line.length > MOST_POINTS) line = simplified(points, (within *= 1.5));
          if (line.length > 1) onDrawn({ points: line });
        }}
      />
      {points.length > 1 && (
        <DrawingShape drawing={{ kind: of, points: [...points] }} unit={unit} />
      )}
    </>
  );
}

/** Three clicks: one end, the corner, the other end. */
function Angle({ of, unit, at, onDrawn }: Part) {
  const [points, setPoints] = useState<readonly PixelPoint[]>([]);
  const [next, setNext] = useState<PixelPoint | null>(null);
  const click = (event: PointerEvent) => {
    const now = [...points, at(event)];
    if (now.length < 3) return setPoints(now);
    setPoints([]);
    onDrawn({ points: now });
  };
  const shown = next && points.length > 0 ? [...points, next] : points;
  return (
    <>
      <Catcher onPointerDown={click} onPointerMove={(event) => setNext(at(event))} />
      {shown.length > 1 && <DrawingShape drawing={{ kind: of, points: [...shown] }} unit={unit} />}
    </>
  );
}

function Words({ at, onDrawn }: Part) {
  const [place, setPlace] = useState<PixelPoint | null>(null);
  const [text, setText] = useState('');
  const done = () => {
    setPlace(null);
    setText('');
  };
  return (
    <>
      <Catcher onPointerDown={(event) => setPlace(at(event))} />
      {place && (
        <Dialog isOpen onClose={done} title="What shall stand there?">
          <form
            onSubmit={(event) => {
              event.preventDefault();
              const words = text.trim();
              if (words) onDrawn({ points: [place], text: words });
              done();
            }}
          >
            <TextField
              label="Words"
              autoFocus
              maxLength={120}
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <div className="mt-5 flex gap-4">
              <Button type="submit" weight="main" disabled={text.trim() === ''}>
                Put it there
              </Button>
              <Button onClick={done}>Cancel</Button>
            </div>
          </form>
        </Dialog>
      )}
    </>
  );
}

const SAYS: Record<DrawingKind, string> = {
  line: 'Drag a line.',
  arrow: 'Drag an arrow; it points to where you let go.',
  angle: 'Click one end, the corner, the other end. It is the angle in the picture, not in space.',
  free: 'Draw with the pointer held down.',
  words: 'Click where the words shall begin.',
};

/** Chalk on the frame in hand; it stays with the frame. */
export const DRAW: PictureTool<'draw'> = {
  Says: ({ tool: { of } }) => `${SAYS[of]} It stays with this frame; undo takes it back.`,
  Surface,
};
