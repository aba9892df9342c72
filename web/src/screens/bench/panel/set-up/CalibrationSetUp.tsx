'use client';

import { useMemo, useState } from 'react';
import type { Rectangle } from '@sinew/core/reconstruct/calibration/calibration';
import { contradictsView, floorCamera } from '@sinew/core/reconstruct/calibration/camera';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { clipCalibration } from '@sinew/core/analysis/clipCalibration';
import type { ClipDocument, SavedCalibration } from '@sinew/core/analysis/clipDocument';
import type { CameraSetup } from '@/data/gym/cameraSetups';
import { pastTime } from '@/data/database/today';
import { inManner } from '@/manner/manner';
import { Button } from '@/ui/button';
import { forgetSetup, keepSetup } from '../../document/actions';
import { documentOf, useBench, useBenchStore, type Tool } from '../../document/benchStore';
import { applyCalibration, setLens, setRectangle, setScale, setTarget } from '../../document/edits';

/** What is set in the picture so that pixels become metres, and the set-ups that can be used again. */
export function CalibrationSetUp({ setups }: { setups: readonly CameraSetup[] }) {
  const store = useBenchStore();
  const document = useBench(documentOf);
  const { scale, target, rectangle, lens } = document;
  const { edit, setTool } = store.getState();
  const now = () => documentOf(store.getState());
  const draw = (tool: Tool) => () => setTool(tool);
  return (
    <div>
      <SetLine
        name="Rectangle"
        hint="on the floor or upright"
        value={rectangle && sayRectangle(rectangle)}
        onDraw={draw({ kind: 'rectangle', of: rectangle?.kind ?? 'floor' })}
        onClear={() => edit(setRectangle(now(), null))}
      />
      {rectangle && <CameraFound />}
      <SetLine
        name="Known length"
        hint={rectangle ? 'the rectangle gives it' : 'in the plane of the strike'}
        value={scale && inManner(`${Math.round(scale.metres * 1000) / 10} cm`)}
        onDraw={draw({ kind: 'scale' })}
        onClear={() => edit(setScale(now(), null))}
      />
      <SetLine
        name="Line to the target"
        hint={rectangle && rectangle.kind !== 'upright' ? 'along the floor' : undefined}
        value={target && 'drawn'}
        onDraw={draw({ kind: 'target' })}
        onClear={() => edit(setTarget(now(), null))}
      />
      <SetLine
        name="Bow of the lens"
        hint="from a straight edge"
        value={lens && `${(100 * lens.bend).toFixed(1)} %`}
        onDraw={draw({ kind: 'straight' })}
        onClear={() => edit(setLens(now(), null))}
      />
      <Setups setups={setups} document={document} />
    </div>
  );
}

function sayRectangle({ kind, width, depth, height }: Rectangle): string {
  const sides = kind === 'box' ? [width, depth, height] : [width, depth];
  const said = sides.map((side) => inManner(`${metres(side)} m`)).join(' × ');
  return kind === 'upright' ? `${said}, upright` : said;
}

const metres = (value: number) => String(Math.round(value * 1000) / 1000);

/** What the rectangle tells of the camera, or why it tells nothing. */
function CameraFound() {
  const clip = useBench((state) => state.clip);
  const { view, azimuth, scale, target, rectangle, lens } = useBench(documentOf);
  const says = useMemo(() => {
    const { calibration, problem } = clipCalibration(
      { view, azimuth, scale, target, rectangle, lens },
      clip,
    );
    if (problem) return { problem: `This rectangle fixes nothing: ${problem}.` };
    if (rectangle?.kind === 'upright') return null;
    const camera = floorCamera(calibration);
    const { position, residual } = camera;
    if (contradictsView(calibration, camera)) {
      return {
        problem:
          `By this rectangle the camera stood ${view === 'front' ? 'behind the student' : 'before the student'}, ` +
          `but the film is said to be taken ${VIEW_GUIDE[view].name.toLowerCase()}: is corner 1 the right one, ` +
          'and does the side from 1 to 2 run to the target?',
      };
    }
    const [x, y, z] = position as [number, number, number];
    const away = Math.hypot(x - rectangle!.width / 2, y - rectangle!.depth / 2);
    return {
      text: inManner(
        `The camera stood ${away.toFixed(1)} m from its middle, ${z.toFixed(1)} m up; ` +
          `the corners miss by ${residual.toFixed(1)} pixels.`,
      ),
    };
  }, [view, azimuth, scale, target, rectangle, lens, clip]);
  if (!says) return null;
  return says.problem ? (
    <p role="alert" className="mb-2 border-l-4 border-now pl-3">
      {says.problem}
    </p>
  ) : (
    <p className="mb-2 text-sm text-soft" data-camera-found>
      {says.text}
    </p>
  );
}

function SetLine({
  name,
  hint,
  value,
  onDraw,
  onClear,
}: {
  name: string;
  hint?: string;
  value: string | null;
  onDraw: () => void;
  onClear: () => void;
}) {
  return (
    <div className="flex items-center gap-4 border-t border-rule py-2">
      <span className="min-w-0 flex-1">
        <strong className="font-semibold">{name}</strong>{' '}
        {hint && <span className="text-sm text-soft">{hint}</span>}
      </span>
      <span className="text-soft">{value ?? 'not set'}</span>
      <Button onClick={onDraw}>{value ? 'Draw anew' : 'Draw it'}</Button>
      {value && (
        <Button weight="quiet" onClick={onClear}>
          Clear
        </Button>
      )}
    </div>
  );
}

function Setups({ setups, document }: { setups: readonly CameraSetup[]; document: ClipDocument }) {
  const store = useBenchStore();
  const { width, height } = useBench((state) => state.clip);
  const [name, setName] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const fitting = setups.filter((one) => one.width === width && one.height === height);
  const { view, azimuth, scale, target, rectangle, lens } = document;
  const calibration: SavedCalibration = { view, azimuth, scale, target, rectangle, lens };
  const isSet = Boolean(scale ?? target ?? rectangle ?? lens);
  const use = (id: string) => {
    const chosen = fitting.find((one) => one.id === id);
    if (!chosen) return;
    const { edit } = store.getState();
    edit(applyCalibration(documentOf(store.getState()), chosen.calibration));
    setSaid(`As “${chosen.name}”. It holds as long as the camera stood where it stood then.`);
  };
  return (
    <section aria-label="Camera set-ups" className="border-t border-ink pt-3">
      <div className="flex flex-wrap items-center gap-3">
        {fitting.length > 0 && (
          <select
            aria-label="Use a camera set-up"
            value=""
            onChange={(event) => use(event.target.value)}
            className="h-9 border border-soft bg-field px-2"
          >
            <option value="">Use a camera set-up…</option>
            {fitting.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        )}
        {isSet && (
          <form
            className="flex items-center gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              void keepSetup({ name, width, height, calibration }).then((problem) => {
                setSaid(problem ?? `Kept as “${name.trim()}”.`);
                if (!problem) setName('');
              });
            }}
          >
            <input
              aria-label="Name of this camera set-up"
              placeholder="Keep this set-up as…"
              value={name}
              onChange={(event) => setName(event.target.value)}
              className="h-9 w-44 border border-soft bg-field px-2"
            />
            <Button type="submit" disabled={name.trim() === ''}>
              Keep
            </Button>
          </form>
        )}
      </div>
      {said && (
        <p role="status" className="mt-2 text-sm text-soft">
          {said}
        </p>
      )}
      {fitting.length > 0 && (
        <details className="mt-2 text-sm text-soft">
          <summary>Kept set-ups</summary>
          <ul>
            {fitting.map((one) => (
              <li key={one.id} className="flex items-center gap-3 py-1">
                {one.name}, {pastTime(one.updatedAt)}
                <Button weight="quiet" className="text-sm" onClick={() => void forgetSetup(one.id)}>
                  Forget
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
