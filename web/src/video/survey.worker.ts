/** Surveys a film off the main thread; see `surveyor.ts` for the side that talks to it. */
import { expose } from 'comlink';
import { BlobSource, UrlSource } from 'mediabunny';
import { surveyFilm } from './filmSurvey';
import type { Survey } from '@sinew/core/observe/take/survey';

const api = {
  /** @param film a file, or the address of a clip */
  survey(film: File | string, count: number, onProgress: (share: number) => void): Promise<Survey> {
    const source = typeof film === 'string' ? new UrlSource(film) : new BlobSource(film);
    return surveyFilm(source, count, onProgress);
  },
};

export type SurveyWorker = typeof api;

expose(api);
