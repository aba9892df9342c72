/** `npm run architecture`: draws `docs/architecture.svg`, the rooms and the imports between them. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { cruise } from 'dependency-cruiser';
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config';
import config from '../.dependency-cruiser.mjs';
import { CORE_ROAD, ROOMS } from './lib/house.mjs';
import { root } from './lib/setup.mjs';

process.chdir(root);
const folders = ['core/src', 'fighters/src', 'cli/src', 'demo/src', 'web/src', 'e2e'];
const { output } = await cruise(folders, { ...config.options, ruleSet: {} }, undefined, {
  tsConfig: extractTSConfig('tsconfig.json'),
});

/** The room of a file: a stage of the core, or one of the others. */
function roomOf(path) {
  const stage = CORE_ROAD.find((one) => path.startsWith(`core/src/${one}/`));
  if (stage) return stage;
  return Object.keys(ROOMS).find(
    (name) => name !== 'core' && path.startsWith(`${ROOMS[name].path}/`),
  );
}

const counts = new Map();
const files = new Map();
for (const { source, dependencies } of output.modules) {
  const from = roomOf(source);
  if (!from) continue;
  files.set(from, (files.get(from) ?? 0) + 1);
  for (const { resolved } of dependencies) {
    const to = roomOf(resolved);
    if (to && to !== from) {
      const key = `${from} ${to}`;
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  }
}

/** Floors of the house, from the top: who may look into whom runs downwards. */
const FLOORS = [
  ['e2e', 'demo'],
  ['app'],
  ['screens'],
  ['ui', 'data'],
  ['tracking', 'video'],
  ['api', 'cli', 'fighters'],
  ['analysis', 'format'],
  CORE_ROAD.filter((one) => one.startsWith('train/')),
  CORE_ROAD.filter((one) => one.startsWith('judge/')),
  CORE_ROAD.filter((one) => one.startsWith('measure/')),
  CORE_ROAD.filter((one) => one.startsWith('reconstruct/')),
  CORE_ROAD.filter((one) => one.startsWith('observe/')),
  CORE_ROAD.filter((one) => one.startsWith('foundation/')),
];
const [WIDTH, ROW, TOP, BOX] = [1180, 74, 40, 34];
const place = new Map();
FLOORS.forEach((floor, y) => {
  const step = WIDTH / floor.length;
  floor.forEach((name, i) =>
    place.set(name, { x: step * (i + 0.5), y: TOP + y * ROW, width: Math.min(150, step - 10) }),
  );
});

const arrows = [...counts]
  .map(([key, count]) => ({ pair: key.split(' '), count }))
  .filter(({ pair }) => pair.every((name) => place.has(name)))
  .sort((a, b) => a.count - b.count)
  .map(({ pair, count }) => {
    const [a, b] = pair.map((name) => place.get(name));
    const isUp = b.y < a.y;
    const [y1, y2] = a.y === b.y ? [a.y + BOX / 2, b.y + BOX / 2] : [a.y + BOX / 2, b.y - BOX / 2];
    const bend = a.y === b.y ? 26 : 0;
    const middle = (y1 + y2) / 2 + bend;
    const weight = Math.min(5, 0.6 + Math.log2(count) / 2);
    return `<path d="M${a.x.toFixed(0)} ${y1} C${a.x.toFixed(0)} ${middle} ${b.x.toFixed(0)} ${middle} ${b.x.toFixed(0)} ${y2}" stroke="${isUp ? '#b3261e' : '#6d6253'}" stroke-width="${weight.toFixed(1)}" stroke-opacity="0.28"><title>${pair.join(' → ')}: ${count} imports</title></path>`;
  });
const boxes = [...place].map(([name, { x, y, width }]) => {
  const left = (x - width / 2).toFixed(0);
  const short = name.split('/').at(-1);
  return `<g><title>${name}: ${files.get(name) ?? 0} files</title><rect x="${left}" y="${y - BOX / 2}" width="${width.toFixed(0)}" height="${BOX}" fill="#f7f2e9" stroke="#221d16"/><text x="${x.toFixed(0)}" y="${y + 1}" text-anchor="middle">${short}</text><text x="${x.toFixed(0)}" y="${y + 13}" text-anchor="middle" class="n">${files.get(name) ?? 0} files</text></g>`;
});
const heads = FLOORS.flatMap((floor, y) => {
  const [group] = floor[0].includes('/') ? [floor[0].split('/')[0]] : [];
  return group
    ? [`<text x="6" y="${TOP + y * ROW - BOX / 2 - 4}" class="h">core/src/${group}</text>`]
    : [];
});
const height = TOP + FLOORS.length * ROW;
writeFileSync(
  join(root, 'docs', 'architecture.svg'),
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" role="img" aria-label="The rooms of Sinew and the imports between them, which run downwards">
<style>text{font:600 12px Archivo,Helvetica,sans-serif;fill:#221d16}.n{font-weight:400;font-size:9px;fill:#6d6253}.h{font-weight:400;font-size:11px;fill:#6d6253}</style>
<rect width="100%" height="100%" fill="#fffdf8"/>
<g fill="none">
${arrows.join('\n')}
</g>
${heads.join('\n')}
${boxes.join('\n')}
</svg>
`,
);
console.log(`docs/architecture.svg: ${place.size} rooms, ${counts.size} ways between them.`);
