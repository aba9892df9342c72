import type { ComponentType, PointerEvent } from 'react';
import type { PixelPoint } from '@sinew/core/reconstruct/calibration/calibration';
import { useBench, type Tool } from '../../document/benchStore';

type ToolOf<Kind extends Tool['kind']> = Extract<Tool, { kind: Kind }>;

export interface SurfaceProps<Kind extends Tool['kind'] = Tool['kind']> {
  readonly tool: ToolOf<Kind>;
  /** One CSS pixel of the screen, in pixels of the picture. */
  readonly unit: number;
  /** Where in the picture the pointer is. */
  readonly at: (event: PointerEvent) => PixelPoint;
}

/** A tool of the picture: what it says while in hand, and the surface that clicks and drags go to. */
export interface PictureTool<Kind extends Tool['kind']> {
  readonly Says: ComponentType<{ readonly tool: ToolOf<Kind> }>;
  readonly Surface: ComponentType<SurfaceProps<Kind>>;
}

/** Whether a press of the pointer is meant for the tool: the other button and Alt move the picture. */
export const isForTool = (event: PointerEvent) => event.button === 0 && !event.altKey;

/** Takes clicks and drags anywhere on the picture. */
export function Catcher(on: {
  onPointerDown: (event: PointerEvent) => void;
  onPointerMove?: (event: PointerEvent) => void;
  onPointerUp?: () => void;
}) {
  const { width, height } = useBench((state) => state.clip);
  return (
    <rect
      width={width}
      height={height}
      fill="transparent"
      className="cursor-crosshair"
      {...on}
      onPointerDown={(event) => {
        if (isForTool(event)) on.onPointerDown(event);
      }}
    />
  );
}
