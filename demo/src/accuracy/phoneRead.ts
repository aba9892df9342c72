/** A film that one phone took, read as the app reads it once contact has been heard, beside what the exact body reads. */
import { analyze, type Analysis } from '@sinew/core/analysis/analyze';
import { analyzeClip } from '@sinew/core/analysis/analyzeClip';
import { EMPTY_DOCUMENT } from '@sinew/core/analysis/clipDocument';
import { trackedOf } from '@sinew/core/analysis/clipFacts';
import { libraryFrom, NO_EDITS } from '@sinew/core/judge/library/edits';
import { markOnFrame } from '@sinew/core/measure/events/events';
import { turnsOf } from '@sinew/core/observe/band/bandTurns';
import { nearestFrame } from '@sinew/core/observe/track/time';
import { knownTrack } from '@sinew/fighters/fighter/track';
import { truthOfStrike, type Truth } from '@sinew/fighters/fighter/truth';
import type { PhoneFilm } from './phoneFilms';
import type { PhoneSearch } from './phoneSearches';

export interface PhoneRead {
  readonly film: PhoneFilm;
  /** In the film's own time. */
  readonly told: Analysis;
  /** In the strike's. */
  readonly truth: Truth;
  /** The body in space, all but free of noise. */
  readonly exact: Analysis;
}

export function readPhoneFilm(film: PhoneFilm, { detections, bands }: PhoneSearch): PhoneRead {
  const { recipe, rate, frames, starts, camera, view, azimuth } = film;
  const truth = truthOfStrike(recipe);
  const frameTimes = Array.from({ length: frames }, (_, i) => i / rate);
  const contact = nearestFrame(frameTimes, recipe.contact - starts);
  const { id, technique, side } = { id: 'strike', ...truth, technique: recipe.technique };
  const strike = { id, technique, side, marks: { contact: { frame: contact, width: 1 } } };
  const document = { ...EMPTY_DOCUMENT, view, azimuth, strikes: [strike] };
  const facts = { frameTimes, width: camera.width, height: camera.height };
  const tracked = trackedOf(detections, facts, document);
  const { stance, height } = recipe;
  const told = analyzeClip(
    {
      document,
      film: { ...facts, tracked, bands: bands && turnsOf(bands) },
      student: { school: {}, stance, heightM: height, massKg: 70 },
      second: null,
    },
    strike,
    libraryFrom(NO_EDITS),
  );
  return { film, told, truth, exact: exactly(film, truth) };
}

function exactly({ recipe }: PhoneFilm, { technique, side }: Truth): Analysis {
  const track = knownTrack(recipe, { rate: 480, noise: 0.0003, seed: 1 });
  const contact = nearestFrame(track.frameTimes, recipe.contact);
  return analyze({
    track,
    strike: { technique, side, stance: recipe.stance },
    marks: { contact: markOnFrame(track.frameTimes, contact) },
    body: { mass: 70, height: recipe.height },
  });
}
