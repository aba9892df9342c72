/** Films rendered to try the body tracker on, each different from the usual one in one thing. */
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { Model } from '@sinew/web/api/models';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import type { Look } from '@sinew/fighters/film/clips';
import { CAMERAS, type Camera } from '@sinew/fighters/film/camera';

export interface TriedFilm {
  readonly name: string;
  readonly recipe: Recipe;
  readonly view: View;
  readonly camera: Camera;
  readonly look: Look;
  readonly model: Model;
  readonly crf?: number;
  /** Seconds. */
  readonly exposure?: number;
}

/** Frames a second of all of them. */
export const TRIED_RATE = 120;

const LIGHT: Look = {
  skin: '#e0b08e',
  hair: '#7a4a22',
  shirt: '#7c3f35',
  shorts: '#4a5468',
  belt: '#efe8d6',
};
const DARK: Look = {
  skin: '#5a3826',
  hair: '#120e0c',
  shirt: '#23262c',
  shorts: '#1d2420',
  belt: '#3a332b',
};
const PALE: Look = {
  skin: '#f1d3bd',
  hair: '#d9bd86',
  shirt: '#e6e1d4',
  shorts: '#cfc6b2',
  belt: '#f4efe2',
};

const USUAL: TriedFilm = {
  name: 'the usual: a cross from the side, standard',
  recipe: clean('cross'),
  view: 'side',
  camera: CAMERAS.side,
  look: LIGHT,
  model: 'standard',
};

const far = (camera: Camera, times: number): Camera => ({
  ...camera,
  fieldOfView: 2 * Math.atan(times * Math.tan(camera.fieldOfView / 2)),
});

export const TRIED_FILMS: readonly TriedFilm[] = [
  USUAL,
  { ...USUAL, name: 'quick', model: 'quick' },
  { ...USUAL, name: 'fine', model: 'fine' },
  { ...USUAL, name: 'from the front', view: 'front', camera: CAMERAS.front },
  { ...USUAL, name: 'from behind', view: 'behind', camera: CAMERAS.behind },
  { ...USUAL, name: 'stout', look: { ...LIGHT, girth: 1.3 } },
  { ...USUAL, name: 'slight', look: { ...LIGHT, girth: 0.8 } },
  { ...USUAL, name: 'dark skin, dark clothes', look: DARK },
  { ...USUAL, name: 'pale skin, pale clothes', look: PALE },
  { ...USUAL, name: 'half as large in the picture', camera: far(CAMERAS.side, 2) },
  { ...USUAL, name: 'badly compressed (CRF 38)', crf: 38 },
  { ...USUAL, name: 'motion blur, shutter 1/125 s', exposure: 1 / 125 },
  {
    ...USUAL,
    name: 'lead hook from the front',
    recipe: clean('lead-hook'),
    view: 'front',
    camera: CAMERAS.front,
  },
  { ...USUAL, name: 'front kick', recipe: clean('front-kick') },
  { ...USUAL, name: 'jammed cross', recipe: clean('cross', { reach: 0.6 }) },
];
