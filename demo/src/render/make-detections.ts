/**
 * Goes through the demo films that come tracked, and runs the app's own body tracker over them, to
 * `demo/detections`. Needs
 * Debian's chromium; the files are committed, so only someone who changes a film runs this:
 *
 *   npm run detections -w demo
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { encodeDetections } from '@sinew/web/api/detectionBlob';
import { trackerBrowser } from '../accuracy/tracked';
import { TRACKED_FILMS } from '../gym/tracked';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

mkdirSync(here('../../detections'), { recursive: true });
const browser = await trackerBrowser();
for (const file of TRACKED_FILMS) {
  const { detections, pace } = await browser.track(here(`../../clips/${file}`), 'standard');
  const seen = detections.map(([frame, values]) => ({ frame, values: Float32Array.from(values) }));
  writeFileSync(here(`../../detections/${file}.bin`), encodeDetections(seen));
  const survey = await browser.survey(here(`../../clips/${file}`));
  writeFileSync(here(`../../detections/${file}.survey.json`), `${JSON.stringify(survey)}\n`);
  console.log(`${file}: ${seen.length} frames, ${pace.toFixed(0)} ms each`);
}
await browser.close();
