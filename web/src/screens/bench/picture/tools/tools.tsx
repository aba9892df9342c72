/** Every tool of the picture, by its kind: a new one is a file of its own and a line here. */
import type { ComponentType, PointerEvent } from 'react';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { useBench, type Tool } from '../../document/benchStore';
import { DRAW } from './draw';
import { PERSON } from './person';
import type { PictureTool, SurfaceProps } from './pictureTool';
import { PLACE } from './place';
import { RECTANGLE } from './rectangle';
import { RULER } from './ruler';
import { SCALE } from './scale';
import { STRAIGHT } from './straight';
import { TARGET } from './target';
import { TURN } from './turn';

type Kind = Exclude<Tool['kind'], 'look'>;

const TOOLS: { readonly [K in Kind]: PictureTool<K> } = {
  place: PLACE,
  turn: TURN,
  scale: SCALE,
  target: TARGET,
  rectangle: RECTANGLE,
  straight: STRAIGHT,
  person: PERSON,
  ruler: RULER,
  draw: DRAW,
};

/** Null with no tool in hand. */
const inHand = (tool: Tool) =>
  tool.kind === 'look' ? null : (TOOLS[tool.kind] as PictureTool<Tool['kind']>);

/** What the tool in hand says, nothing with none. */
export function Said({ tool }: { tool: Tool }) {
  const Says = inHand(tool)?.Says;
  if (!Says) return null;
  return (
    <p className="pointer-events-none absolute inset-x-0 top-full z-10 border-b border-rule bg-paper px-3 py-1 text-soft">
      <Says tool={tool} />
    </p>
  );
}

/** The surface of the tool in hand, above all that is drawn; what it had begun goes with it. */
export function ToolSurface({
  unit,
  at,
}: {
  unit: number;
  at: (event: PointerEvent) => PixelPoint;
}) {
  const tool = useBench((state) => state.tool);
  const Surface: ComponentType<SurfaceProps> | undefined = inHand(tool)?.Surface;
  const begun = tool.kind + ('of' in tool ? tool.of : '');
  return Surface ? <Surface key={begun} tool={tool} unit={unit} at={at} /> : null;
}
