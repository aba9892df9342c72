import { CLIP_GONE, fresh, there } from '@/app/api/answers';
import { wornOn } from '@sinew/core/observe/band/band';
import { studentById } from '@/data/student/students';
import { loadBench } from '@/data/bench/bench';
import { ofClip } from '../ofClip';

/** A clip and what is set on its bench: what another bench needs to stand beside it. */
export const GET = ofClip(async (_, { db, clip }) => {
  const bench = there(await loadBench(db, clip.id), CLIP_GONE);
  const { stance, bands } = there(await studentById(db, clip.studentId), CLIP_GONE);
  return fresh({ clip, bench, stance, worn: wornOn(bands) });
});
