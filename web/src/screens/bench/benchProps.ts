/** What a clip's bench is opened with. */
import type { ImportedSeries, StudentFacts } from '@sinew/core/analysis/clipFacts';
import type { WornBands } from '@sinew/core/observe/band/band';
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { Library } from '@sinew/core/judge/library/edits';
import type { Deed } from '@/data/access/deeds';
import type { SavedBench } from '@/data/bench/bench';
import type { ClipSummary } from '@/data/clip/clips';
import type { SecondView } from '@/data/clip/viewPairs';
import type { Cue, Decision } from '@/data/finding/findings';
import type { CameraSetup } from '@/data/gym/cameraSetups';
import type { Job } from '@/api/job';
import type { Survey } from '@sinew/core/observe/take/survey';
import type { BenchClip } from './document/benchStore';

export interface BenchProps {
  readonly clip: BenchClip;
  readonly student: StudentFacts;
  readonly saved: SavedBench;
  readonly library: Library;
  readonly start: { readonly strikeId: string | null; readonly frame: number };
  readonly decisions: Readonly<Record<string, readonly Decision[]>>;
  readonly cues: readonly Cue[];
  readonly survey: Survey | null;
  readonly second: SecondView | null;
  readonly job: Job | null;
  readonly series: ImportedSeries | null;
  /** The student's bands, and what those worn in this film have told. */
  readonly worn: WornBands;
  readonly bands: KeptBands | null;
  readonly setups: readonly CameraSetup[];
  /** The student's other clips, newest first. */
  readonly others: readonly ClipSummary[];
  /** Who did what in this clip, newest first. */
  readonly deeds: readonly Deed[];
}
