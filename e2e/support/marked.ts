import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { DEMO_CLIPS } from '@sinew/fighters/film/clips';
import { truthOf } from '@sinew/fighters/film/clipTruth';
import { demoClip, post } from './gym';

/** Bring a demo film in for a student of the gym that is on the page, marked as its truth has it. @returns the clip's id */
export async function marked(page: Page, studentId: string, file: string): Promise<string> {
  const film = DEMO_CLIPS.find((clip) => clip.file === file)!;
  const base = new URL(page.url()).origin;
  const answer = await post(page.request, base, studentId, readFileSync(demoClip(file)), {
    name: file,
    view: film.view,
    intent: 'tempo',
  });
  const { id } = (await answer.json()) as { id: string };
  const { frames, strike } = truthOf(film);
  const saved = (await (await page.request.get(`${base}/api/clips/${id}/bench`)).json()) as {
    revision: number;
    document: object;
  };
  const marks = Object.fromEntries(
    Object.entries(frames).map(([event, frame]) => [event, { frame, width: 1 }]),
  );
  const strikes = [{ id: `${id}-1`, technique: strike.technique.id, side: strike.side, marks }];
  const put = await page.request.put(`${base}/api/clips/${id}/bench`, {
    data: { ...saved, document: { ...saved.document, strikes } },
  });
  expect(put.ok()).toBe(true);
  return id;
}
