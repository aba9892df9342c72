/**
 * Renders the films that one phone is tried on and keeps what the app finds in them, in `demo/detections/phone`:
 * bodies and bands. Films themselves are not kept; what has been searched is not made again. Needs Debian's
 * chromium and ffmpeg, and a minute a film:
 *
 *   npm run films -w demo [-- ID …]
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { wornOn } from '@sinew/core/observe/band/band';
import { girthsAt } from '@sinew/fighters/film/wornBands';
import { encodeDetections } from '@sinew/web/api/detectionBlob';
import { bandsIn } from './bandsIn';
import { filmMaker } from './film';
import { scratchFolder } from '../scratch';
import { isInTheAir, PHONE_FILMS, timesIn, type PhoneFilm } from '../accuracy/phoneFilms';
import { isSearched, phoneSearch } from '../accuracy/phoneSearches';
import { trackerBrowser } from '../accuracy/tracked';

/** Share of the time from frame to frame for which the shutter is open. */
const OPEN = 0.25;

const [make, browser] = [await filmMaker(), await trackerBrowser()];
const path = join(scratchFolder('phone'), 'film.mp4');

async function search(film: PhoneFilm): Promise<void> {
  const { recipe, camera, look, view, rate, crf } = film;
  const times = timesIn(film);
  const subject = { file: '', student: '', view, rate, recipe, look, camera };
  const inTheAir = isInTheAir(film) && { isInTheAir: true as const };
  const exposure = OPEN / rate;
  await make({ path, rate, times, subject: { ...subject, ...inTheAir }, crf, exposure });
  const { detections, width, height } = await browser.track(path, 'standard');
  const seen = detections.map(([frame, values]) => ({ frame, values: Float32Array.from(values) }));
  if (look.bands) {
    const { stance, height: tall } = recipe;
    const worn = wornOn({ kind: look.bands, girths: girthsAt(tall), seam: 'front' });
    const stretches = [{ from: 0, to: times.length - 1 }];
    const own = times.map((time) => time - film.starts);
    const banded = { path, width, height, times: own, stretches, detections: seen, stance, worn };
    writeFileSync(phoneSearch(film, 'bands.json'), `${JSON.stringify(bandsIn(banded))}\n`);
  }
  writeFileSync(phoneSearch(film, 'bin'), encodeDetections(seen));
  console.log(`${film.id}: ${seen.length} of ${times.length} frames`);
}

const wanted = process.argv.slice(2);
for (const film of PHONE_FILMS) {
  if (isSearched(film) || (wanted.length > 0 && !wanted.includes(film.id))) continue;
  mkdirSync(join(phoneSearch(film, 'bin'), '..'), { recursive: true });
  await search(film);
}
await browser.close();
