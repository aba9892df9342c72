import { CORE_ROAD, ROOMS } from './scripts/lib/house.mjs';

const inRoom = (path) => `^${path}/`;
const all = Object.values(ROOMS);

export default {
  forbidden: [
    {
      name: 'no-circle',
      comment: 'Two files that need each other are one, or have a third in common.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    ...CORE_ROAD.slice(0, -1).map((room, index) => ({
      name: `road-${room}`,
      comment: 'A stage of the core does not know the stages behind it.',
      severity: 'error',
      from: { path: inRoom(`core/src/${room}`) },
      to: { path: CORE_ROAD.slice(index + 1).map((later) => inRoom(`core/src/${later}`)) },
    })),
    {
      name: 'core-is-on-the-road',
      comment: 'Every folder of the core has its place in scripts/lib/house.mjs.',
      severity: 'error',
      from: {},
      to: {
        path: '^core/src/',
        pathNot: CORE_ROAD.map((room) => inRoom(`core/src/${room}`)),
      },
    },
    ...Object.entries(ROOMS).map(([name, { path, sees }]) => ({
      name: `room-${name}`,
      comment: 'Imports go down; see scripts/lib/house.mjs.',
      severity: 'error',
      from: { path: inRoom(path) },
      to: {
        path: all.map((room) => inRoom(room.path)),
        pathNot: [path, ...sees.map((other) => ROOMS[other].path)].map(inRoom),
      },
    })),
    {
      name: 'core-tests-stand-alone',
      comment: 'The truth that the core is held to is made without the app.',
      severity: 'error',
      from: { path: '^(core|fighters)/test/' },
      to: { path: ['^web/', '^demo/', '^cli/'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(\\.next|public|prepared|test-results)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js'],
    },
  },
};
