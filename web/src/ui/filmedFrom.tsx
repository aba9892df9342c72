'use client';

import type { ReactNode } from 'react';
import { VIEWS } from '@sinew/core/foundation/technique/techniques';
import {
  CAMERA_PLACES,
  VIEW_GUIDE,
  viewAt,
  type FilmedFrom,
} from '@sinew/core/foundation/technique/views';
import { SelectField } from './field';

/** Those of the eight places that say more than a view does. */
const CLOSER = CAMERA_PLACES.filter(({ azimuth }) => Math.abs(Math.sin(azimuth)) > 0.1);

/** @returns the place that {@link toText} has made this text of; null for any other text */
export function filmedFrom(text: string): FilmedFrom | null {
  const view = VIEWS.find((one) => one === text);
  if (view) return { view };
  const place = CLOSER.find(({ name }) => name === text);
  return place ? { view: viewAt(place.azimuth), azimuth: place.azimuth } : null;
}

function toText({ view, azimuth }: FilmedFrom): string {
  return CLOSER.find((place) => place.azimuth === azimuth)?.name ?? view;
}

/** Where the camera stood: a view, or more exactly one of the places round the student. */
export function FilmedFromField({
  value,
  onChange,
  ...rest
}: {
  value: FilmedFrom;
  /** @param text what {@link filmedFrom} reads */
  onChange: (text: string) => void;
  hint?: ReactNode;
  className?: string;
}) {
  return (
    <SelectField
      label="Filmed"
      value={toText(value)}
      onChange={(event) => onChange(event.target.value)}
      {...rest}
    >
      {VIEWS.map((view) => (
        <option key={view} value={view}>
          {VIEW_GUIDE[view].name}
        </option>
      ))}
      <optgroup label="More exactly, in guard">
        {CLOSER.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </optgroup>
    </SelectField>
  );
}
