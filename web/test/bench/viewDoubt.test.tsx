// @vitest-environment happy-dom
/** A film declared from elsewhere than it was taken: what the body tracker really saw in the demo's films. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cleanup, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { VIEWS, type View } from '@sinew/core/foundation/technique/techniques';
import { VIEW_GUIDE } from '@sinew/core/foundation/technique/views';
import { decodeDetections } from '@/api/detectionBlob';
import { ViewDoubt } from '@/screens/bench/panel/ViewDoubt';
import { benchWith, documentIn, onBench } from './kit';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

function declared(file: string, view: View) {
  const path = join(import.meta.dirname, '../../../demo/detections', `${file}.bin`);
  const detections = decodeDetections(readFileSync(path));
  const last = detections[detections.length - 1]!.frame;
  const frameTimes = Array.from({ length: last + 1 }, (_, i) => i / 240);
  const store = benchWith({ strike: null, frameTimes, document: { view } });
  store.getState().tracked(null, detections);
  return onBench(store, () => <ViewDoubt />);
}
const name = (view: View) => VIEW_GUIDE[view].name.toLowerCase();

describe.each([
  ['cross-jammed.mp4', 'side'],
  ['elbow-side.mp4', 'side'],
  ['kick-side.mp4', 'side'],
  ['cross-bands.mp4', 'behind'],
] as const)('%s, taken from %s', (file, view) => {
  it.each(VIEWS)('and declared from %s', (said) => {
    declared(file, said);
    const doubt = screen.queryByText(/This looks filmed/);
    if (said === view) expect(doubt).toBeNull();
    else expect(doubt!.textContent).toContain(`filmed ${name(view)}; it is down as ${name(said)}`);
  });
});

it('is put right with one press, or stands as the coach says and is not asked again', async () => {
  const { user, store } = declared('elbow-side.mp4', 'above');
  await user.click(screen.getByRole('button', { name: 'It was from the side' }));
  expect(documentIn(store).view).toBe('side');
  expect(screen.queryByText(/This looks filmed/)).toBeNull();
  cleanup();
  const again = declared('elbow-side.mp4', 'above');
  await again.user.click(screen.getByRole('button', { name: 'No, from above' }));
  expect(documentIn(again.store).view).toBe('above');
  cleanup();
  declared('elbow-side.mp4', 'above');
  expect(screen.queryByText(/This looks filmed/)).toBeNull();
});
