/**
 * The house: every room and which rooms it may look into. The linter holds imports to it
 * (`.dependency-cruiser.mjs`), the picture in `docs/architecture.svg` is drawn from it.
 */

/** The rooms of the core along the road: each may look into those before it, and no other. */
export const CORE_ROAD = [
  'foundation/signal',
  'foundation/geometry',
  'foundation/uncertainty',
  'foundation/calendar',
  'foundation/body',
  'foundation/reading',
  'foundation/problem',
  'foundation/technique',
  'foundation/drill',
  'observe/sound',
  'observe/footage',
  'observe/track',
  'observe/band',
  'observe/take',
  'reconstruct/calibration',
  'reconstruct/motion',
  'measure/events',
  'measure/chain',
  'measure/measures',
  'judge/school',
  'judge/eye',
  'judge/fault',
  'judge/simulate',
  'judge/cost',
  'judge/library',
  'train/work',
  'train/bag',
  'train/progress',
  'format',
  'analysis',
];

/** Everything else: a room's folder, and the rooms it may look into beside itself. */
export const ROOMS = {
  core: { path: 'core/src', sees: [] },
  fighters: { path: 'fighters/src', sees: ['core'] },
  cli: { path: 'cli/src', sees: ['core'] },
  api: { path: 'web/src/api', sees: ['core'] },
  manner: { path: 'web/src/manner', sees: ['core'] },
  video: { path: 'web/src/video', sees: ['api', 'core'] },
  tracking: { path: 'web/src/tracking', sees: ['video', 'api', 'core'] },
  data: { path: 'web/src/data', sees: ['manner', 'video', 'api', 'core'] },
  ui: { path: 'web/src/ui', sees: ['manner', 'tracking', 'video', 'api', 'core'] },
  screens: {
    path: 'web/src/screens',
    sees: ['ui', 'data', 'manner', 'tracking', 'video', 'api', 'core'],
  },
  app: {
    path: 'web/src/app',
    sees: ['screens', 'ui', 'data', 'manner', 'tracking', 'video', 'api', 'core'],
  },
  demo: {
    path: 'demo/src',
    sees: ['fighters', 'data', 'manner', 'tracking', 'video', 'api', 'core'],
  },
  e2e: { path: 'e2e', sees: ['demo', 'fighters', 'data', 'tracking', 'video', 'api', 'core'] },
};
