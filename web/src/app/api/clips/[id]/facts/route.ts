import { CLIP_GONE, fresh, there } from '@/app/api/answers';
import { loadBench } from '@/data/bench/bench';
import { ofClip } from '../ofClip';

/** A clip and what is set on its bench: what another bench needs to stand beside it. */
export const GET = ofClip(async (_, { db, clip }) =>
  fresh({ clip, bench: there(await loadBench(db, clip.id), CLIP_GONE) }),
);
