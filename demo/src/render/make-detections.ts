/**
 * Goes through the demo films that come tracked, and runs the app's own body tracker over them, to
 * `demo/detections`. Needs
 * Debian's chromium; the files are committed, so only someone who changes a film runs this:
 *
 *   npm run detections -w demo [-- NAME …]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { wornOn } from '@sinew/core/observe/band/band';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { girthsAt } from '@sinew/fighters/film/wornBands';
import { encodeDetections } from '@sinew/web/api/detectionBlob';
import { bandsIn } from './bandsIn';
import { trackerBrowser } from '../accuracy/tracked';
import { lookedAt, TRACKED_FILMS } from '../gym/tracked';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

mkdirSync(here('../../detections'), { recursive: true });
const browser = await trackerBrowser();
const wanted = process.argv.slice(2);
for (const file of TRACKED_FILMS) {
  if (wanted.length > 0 && !wanted.includes(file)) continue;
  const { detections, pace } = await browser.track(here(`../../clips/${file}`), 'standard');
  const seen = detections.map(([frame, values]) => ({ frame, values: Float32Array.from(values) }));
  writeFileSync(here(`../../detections/${file}.bin`), encodeDetections(seen));
  const survey = await browser.survey(here(`../../clips/${file}`));
  writeFileSync(here(`../../detections/${file}.survey.json`), `${JSON.stringify(survey)}\n`);
  const clip = DEMO_CLIPS.find((one) => one.file === file);
  const kind = clip?.look.bands;
  if (clip && kind) {
    const { stance, height } = clip.recipe;
    const worn = wornOn({ kind, girths: girthsAt(height), seam: 'front' });
    const path = here(`../../clips/${file}`);
    const bands = bandsIn({ path, ...lookedAt(survey, clip.rate), detections: seen, stance, worn });
    writeFileSync(here(`../../detections/${file}.bands.json`), `${JSON.stringify(bands)}\n`);
  }
  console.log(`${file}: ${seen.length} frames, ${pace.toFixed(0)} ms each`);
}
await browser.close();
