/** How long reading worn bands takes, beside decoding: a frame and band. */
import { PRINTED } from '@sinew/core/observe/band/band';
import { BandReader } from '@sinew/core/observe/band/readBands';
import { clean } from '@sinew/fighters/fighter/recipe';
import { bandedFilm, USUALLY_BANDED } from '@sinew/fighters/film/banded';
import { time } from './time';

const { focal, azimuth, seam, size } = USUALLY_BANDED;
const shape = { flatness: 0.75, boxiness: 2.2 };
const hips = { ...shape, code: PRINTED.hips, girth: 0.96 };
const ribs = { ...shape, code: PRINTED.ribs, girth: 0.9 };
const recipe = clean('cross');
const film = bandedFilm({ ...USUALLY_BANDED, recipe, hips, ribs });
const frames = film.times.flatMap((at, i) =>
  Math.abs(at - recipe.contact + 0.2) < 0.3 ? [i] : [],
);
const pictures = frames.map((frame) => ({ ...size, data: film.picture(frame) }));
const place = (name: keyof typeof film.points, frame: number) => {
  const [x, y] = film.points[name]![frame]!;
  return { x, y };
};

const whole = time(`two bands in ${frames.length} frames`, 5, () => {
  const reader = new BandReader({
    focal,
    azimuth,
    stance: 'orthodox',
    bands: { hips: { ...hips, seam }, ribs: { ...ribs, seam } },
  });
  frames.forEach((frame, i) =>
    reader.see(pictures[i]!, film.times[frame]!, {
      hips: [place('leftHip', frame), place('rightHip', frame)],
      shoulders: [place('leftShoulder', frame), place('rightShoulder', frame)],
      forearms: [],
    }),
  );
  reader.read();
});
console.log(`a frame and band: ${(whole / frames.length / 2).toFixed(1)} ms`);
