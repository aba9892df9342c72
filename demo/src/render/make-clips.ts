/**
 * Renders the demo films to `demo/clips` as H.264 MP4 at their true rate. Needs Debian's chromium
 * and ffmpeg; the films are committed, so only someone who changes a fighter runs this:
 *
 *   npm run clips -w demo [-- NAME …]
 */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { scratchFolder } from '../scratch';
import { durationOf } from '@sinew/fighters/fighter/pose';
import { frameTimesOf } from '@sinew/fighters/fighter/track';
import { DEMO_CLIPS, type DemoClip } from '@sinew/fighters/film/clips';
import { DEMO_TAKES, type DemoTake, type TakeFilm } from '@sinew/fighters/film/takes';
import { filmTimes } from '@sinew/fighters/film/takeTruth';
import { CAMERAS } from '@sinew/fighters/film/camera';
import { filmMaker, type FilmJob } from './film';
import { heardBy, SOUND_RATE, wav } from '@sinew/fighters/film/sound';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const pathOf = (file: string) => here(`../../clips/${file}`);

/** Share of the time from frame to frame for which the shutter is open. */
const OPEN = 0.5;

const JOBS: readonly FilmJob[] = [
  ...DEMO_CLIPS.map((clip) => ({
    path: pathOf(clip.file),
    rate: clip.rate,
    times: frameTimesOf(clip.recipe, clip.rate),
    exposure: OPEN / clip.rate,
    subject: clip,
    ...(clip.isHeard && { sound: writeSound(...asTake(clip)) }),
  })),
  ...DEMO_TAKES.flatMap((take) =>
    take.films.map((film) => ({
      path: pathOf(film.file),
      rate: film.rate,
      times: filmTimes(take, film).map((time) => time + film.starts),
      exposure: OPEN / film.rate,
      subject: { take, film },
      sound: writeSound(take, film),
    })),
  ),
];

/** A film of one strike as a take that it is all of. */
function asTake({
  file,
  student,
  look,
  recipe,
  rate,
  view,
  camera,
}: DemoClip): [DemoTake, TakeFilm] {
  const film = { file, camera: camera ?? CAMERAS[view], rate, starts: 0 };
  const strikes = [{ recipe, at: 0, from: 0 }];
  const base = { student, look, technique: recipe.technique, mat: [], films: [film] };
  return [{ ...base, strikes, duration: durationOf(recipe) }, film];
}

/** What the film's microphone hears, as a file of its own. */
function writeSound(take: DemoTake, film: TakeFilm): string {
  const path = join(scratchFolder('sound'), 'heard.wav');
  writeFileSync(path, wav(heardBy(take, film), SOUND_RATE));
  return path;
}

/** The app's own simulated camera plays the side view of the take, as a phone would stream it. */
function streamed(): void {
  const [from, to] = ['../../clips/take-side.mp4', '../../../web/public/simulated-camera.mp4'];
  const args = ['-y', '-loglevel', 'error', '-i', here(from), '-r', '60', '-c:v', 'libx264']
    .concat(['-preset', 'slow', '-crf', '23', '-g', '30', '-pix_fmt', 'yuv420p', '-c:a', 'copy'])
    .concat(['-movflags', '+faststart', here(to)]);
  spawnSync('ffmpeg', args, { stdio: 'inherit' });
}

const wanted = process.argv.slice(2);
const film = await filmMaker();
for (const job of JOBS) {
  if (wanted.length > 0 && !wanted.includes(basename(job.path))) continue;
  await film(job);
  console.log(`${job.path}: ${job.times.length} frames`);
}
streamed();
