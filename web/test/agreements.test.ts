/** What coaches have said of leaks, counted out of what is kept. */
import { expect, it } from 'vitest';
import { USUAL_RULES } from '@sinew/core/judge/fault/finding';
import { agreementsOf } from '@/data/finding/agreements';
import { acceptFinding, putAside } from '@/data/finding/findings';
import { markedClip, markedGym } from './support';

it('counts what was taken and what was called wrong; what was left for later says nothing', async () => {
  const { gym, who, marked } = await markedGym();
  const { catalogue } = USUAL_RULES;
  expect(await agreementsOf(gym.db, catalogue)).toEqual({});
  await acceptFinding(gym.db, marked.strikeId, 'all-at-once', false);
  const second = await markedClip(gym, who, 'cross-jammed.mp4');
  await putAside(gym.db, second.strikeId, 'all-at-once', 'dismissed', 'His way.');
  expect(await agreementsOf(gym.db, catalogue)).toEqual({
    'all-at-once': { taken: 1, wrong: 1, proposal: null },
  });
  await putAside(gym.db, second.strikeId, 'all-at-once', 'later', '');
  expect(await agreementsOf(gym.db, catalogue)).toMatchObject({ 'all-at-once': { wrong: 0 } });
});
