/** Films rendered to try the body tracker on, each different from the usual one in one thing. */
import type { View } from '@sinew/core/foundation/technique/techniques';
import { viewAt } from '@sinew/core/foundation/technique/views';
import type { Model } from '@sinew/web/api/models';
import { FAULTY_FIGHTERS, faulty } from '@sinew/fighters/fighter/faults';
import { clean, type Recipe } from '@sinew/fighters/fighter/recipe';
import type { Look } from '@sinew/fighters/film/clips';
import { CAMERAS, type Camera } from '@sinew/fighters/film/camera';

export interface TriedFilm {
  /** Of the file that its search is kept in. */
  readonly id: string;
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
  id: 'usual',
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
  { ...USUAL, id: 'quick', name: 'quick', model: 'quick' },
  { ...USUAL, id: 'fine', name: 'fine', model: 'fine' },
  { ...USUAL, id: 'front', name: 'from the front', view: 'front', camera: CAMERAS.front },
  { ...USUAL, id: 'behind', name: 'from behind', view: 'behind', camera: CAMERAS.behind },
  { ...USUAL, id: 'stout', name: 'stout', look: { ...LIGHT, girth: 1.3 } },
  { ...USUAL, id: 'slight', name: 'slight', look: { ...LIGHT, girth: 0.8 } },
  { ...USUAL, id: 'dark', name: 'dark skin, dark clothes', look: DARK },
  { ...USUAL, id: 'pale', name: 'pale skin, pale clothes', look: PALE },
  { ...USUAL, id: 'small', name: 'half as large in the picture', camera: far(CAMERAS.side, 2) },
  { ...USUAL, id: 'compressed', name: 'badly compressed (CRF 38)', crf: 38 },
  { ...USUAL, id: 'blurred', name: 'motion blur, shutter 1/125 s', exposure: 1 / 125 },
  {
    ...USUAL,
    id: 'lead-hook',
    name: 'lead hook from the front',
    recipe: clean('lead-hook'),
    view: 'front',
    camera: CAMERAS.front,
  },
  { ...USUAL, id: 'front-kick', name: 'front kick', recipe: clean('front-kick') },
  { ...USUAL, id: 'jammed', name: 'jammed cross', recipe: clean('cross', { reach: 0.6 }) },
];

/** Leaks that one film from the side ought to show, put clearly into the usual cross. */
const SHOWN_FROM_THE_SIDE = [
  'guard-off-drop',
  'head-whip',
  'knee-locks',
  'reach-lean',
  'slow-home',
  'weight-back',
];

/** The usual film with a leak in it, of the leak's name. */
export const FAULTY_FILMS: readonly TriedFilm[] = SHOWN_FROM_THE_SIDE.map((fault) => {
  const fighter = FAULTY_FIGHTERS.find((one) => one.fault === fault)!;
  return { ...USUAL, id: fault, name: fault, recipe: faulty(fighter, 'cross', 'clear') };
});

/** A level camera at an azimuth as orthodox students count it, as far off as that from the side. */
const from = (azimuth: number): Camera => ({
  ...CAMERAS.side,
  position: [7 * Math.cos(azimuth), 0.95, 7 * Math.sin(azimuth)],
  lookAt: [0, 0.89, 0],
});

const EIGHTH = Math.PI / 4;
/** The other phone of a take whose first film is from the side, of the same strike; nothing joins them but the clock. */
export const SECOND_FILMS: readonly (TriedFilm & { readonly azimuth: number })[] = [
  { ...USUAL, id: 'usual-rear', azimuth: 3 * EIGHTH },
  { ...USUAL, id: 'usual-lead', azimuth: -EIGHTH },
  { ...FAULTY_FILMS[0]!, id: 'guard-off-drop-lead', azimuth: -EIGHTH },
  { ...FAULTY_FILMS[1]!, id: 'head-whip-lead', azimuth: -EIGHTH },
].map((film) => ({ ...film, view: viewAt(film.azimuth), camera: from(film.azimuth) }));
