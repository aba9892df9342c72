'use client';

import { CAMERA_PLACES, type CameraPlace } from '@sinew/core/foundation/technique/views';

/** Of the plan's own square of 200. */
const RING = 78;
const BODY = 17;
/** A guard is turned away from square by about this, radians. */
const GUARD = Math.PI / 4;

/**
 * Seen from above: the target, the student in guard, and eight places for the camera. The chest side of an
 * orthodox student lies to the right.
 */
export function PlacePlan({
  chosen,
  isSouthpaw,
  distance,
  serves,
  onChoose,
}: {
  chosen: CameraPlace | null;
  isSouthpaw: boolean;
  /** From the student to the camera, in words; left out where it does not matter. */
  distance?: string;
  /** Places that serve what is asked stand out. */
  serves: (place: CameraPlace) => boolean;
  onChoose: (place: CameraPlace) => void;
}) {
  const side = isSouthpaw ? -1 : 1;
  const at = ({ azimuth }: CameraPlace) => ({
    x: 100 + side * RING * Math.sin(azimuth),
    y: 104 - RING * Math.cos(azimuth),
  });
  const spot = chosen && at(chosen);
  return (
    <fieldset className="relative size-46 shrink-0" aria-label="Where the camera stands">
      <svg viewBox="0 0 200 208" aria-hidden className="absolute inset-0 size-full">
        <circle cx={100} cy={104} r={RING} fill="none" className="stroke-rule" />
        <rect x={86} y={62} width={28} height={7} className="fill-ink" />
        <text x={119} y={70} fontSize={12} className="fill-soft">
          target
        </text>
        <g transform={`translate(100 104) rotate(${side * ((GUARD * 180) / Math.PI)})`}>
          <line
            x1={-BODY}
            x2={BODY}
            strokeWidth={10}
            strokeLinecap="round"
            className="stroke-ink"
          />
          <circle r={7} cy={-2} strokeWidth={1.5} className="fill-paper stroke-ink" />
        </g>
        {spot && (
          <>
            <line
              x1={spot.x}
              y1={spot.y}
              x2={100}
              y2={104}
              strokeDasharray="3 4"
              className="stroke-soft"
            />
            {distance && (
              <text
                x={100 + 0.6 * (spot.x - 100)}
                y={104 + 0.6 * (spot.y - 104) + 4}
                fontSize={12}
                textAnchor="middle"
                className="fill-ink stroke-paper font-semibold"
                paintOrder="stroke"
                strokeWidth={4}
              >
                {distance}
              </text>
            )}
          </>
        )}
      </svg>
      {CAMERA_PLACES.map((place) => {
        const { x, y } = at(place);
        return (
          <label
            key={place.name}
            title={place.name}
            style={{ left: `${x / 2}%`, top: `${y / 2.08}%` }}
            className="absolute flex size-8 -translate-1/2 cursor-pointer items-center justify-center"
          >
            <input
              type="radio"
              name="camera place"
              aria-label={place.name}
              checked={place === chosen}
              onChange={() => onChoose(place)}
              className="peer absolute inset-0 size-full cursor-pointer opacity-0"
            />
            <span
              className={`rounded-full border-ink peer-checked:bg-now peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-ink ${
                serves(place) ? 'size-5 border-2 bg-ink' : 'size-3.5 border bg-paper'
              }`}
            />
          </label>
        );
      })}
    </fieldset>
  );
}
