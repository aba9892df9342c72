/** The tables, as Kysely sees them. Times are ISO 8601 in UTC, flags 0 or 1, lengths SI. */
import type { Generated } from 'kysely';
import type { Stance, Side } from '@sinew/core/foundation/body/landmarks';
import type { EventName } from '@sinew/core/measure/events/events';
import type { Range, Situation } from '@sinew/core/judge/school/resolve';
import type { View } from '@sinew/core/foundation/technique/techniques';
import type { Source } from '@sinew/core/foundation/reading/reading';
import type { BandKind, Seam } from '@sinew/core/observe/band/band';
import type { CountedBy, Intent } from '@sinew/core/foundation/drill/intent';
import type { Stances } from '@sinew/core/train/work/prescription';
import type { HurtPlace } from '@sinew/core/train/work/condition';
import type { Model } from '../../api/models';
import type { DeedKind } from '../access/deedKinds';

interface Stamped {
  created_at: string;
  updated_at: string;
}

interface GymTable extends Stamped {
  id: string;
  name: string;
  class_name: string;
  /** JSON: what the gym has made its own of the catalogue; null for nothing. */
  library: string | null;
  /** JSON: grades, what each allows, classes; null for nothing said. */
  settings: string | null;
}

export interface StudentTable extends Stamped {
  id: string;
  gym_id: string;
  name: string;
  stance: Stance;
  grade: string;
  /** Date the training began, YYYY-MM-DD. */
  started_on: string | null;
  height_m: number | null;
  /** Metres around the body where the printed bands sit. */
  girth_hips_m: number | null;
  girth_ribs_m: number | null;
  /** Where they close; null for nobody has said, which is in front. */
  band_seam: Seam | null;
  /** Null is printed. */
  band_kind: BandKind | null;
  mass_kg: number | null;
  injuries: string;
  /** Ticked before birth dates were asked for; counts while `born_on` is null. */
  is_minor: 0 | 1;
  /** YYYY-MM-DD; null in rows from before it was asked for. */
  born_on: string | null;
  archived_at: string | null;
  /** JSON: the student's own choices of school, or null. */
  school: string | null;
  /** The class the student trains in; empty for none. */
  class_group: string;
  /** Gone for the coach; for good after thirty days. */
  deleted_at: string | null;
}

export interface ConsentTable extends Stamped {
  id: string;
  student_id: string;
  given_by: 'student' | 'guardian';
  /** Who gave it. */
  name: string;
  /** YYYY-MM-DD */
  given_on: string;
  withdrawn_at: string | null;
  /** YYYY-MM-DD, the first day without it; null while it is not withdrawn. */
  expires_on: string | null;
  /** YYYY-MM-DD, the first day without the films of a withdrawn consent; null: until deleted. */
  films_until: string | null;
}

interface SharingTable extends Stamped {
  id: string;
  student_id: string;
  given_by: 'student' | 'guardian';
  /** Who gave it. */
  name: string;
  /** YYYY-MM-DD */
  given_on: string;
  withdrawn_at: string | null;
}

export interface ClipTable extends Stamped {
  id: string;
  student_id: string;
  sha256: string;
  file_name: string;
  mime_type: string;
  bytes: number;
  view: View;
  /** Where the camera stood, more exactly than the view says, radians; null where nobody has said. */
  azimuth: number | null;
  /** Frames a second at which it was shot; null when it plays at true speed. */
  capture_rate: number | null;
  width: number;
  height: number;
  codec: string;
  /** Float64 little-endian, one per frame: the file's own presentation times, seconds. */
  frame_times: Buffer;
  /** JSON: `{from, to, metres}` in pixels, or null. */
  scale: string | null;
  /** JSON: `{from, to}` in pixels, or null. */
  target: string | null;
  /** JSON: `{technique, question}` the clip was filmed for, or null. */
  purpose: string | null;
  /** JSON: a rectangle of known sides seen in the picture, or null. */
  rectangle: string | null;
  /** JSON: `{bend}` of the lens, or null. */
  lens: string | null;
  /** JSON: stretches of frames that are no strikes, as the coach said; null for none. */
  refused: string | null;
  /** JSON: what the coach has said of tracked points beside placing them anew; null for nothing. */
  corrections: string | null;
  /** JSON: what the coach has drawn on frames; null for nothing. */
  drawings: string | null;
  /** The coach's words on the film; null for none. */
  note: string | null;
  /** How hard what it shows was meant; null when nobody has said. */
  intent: Intent | null;
  /** The round it was filmed in, from 1; null outside rounds. */
  round: number | null;
  /** Gone for the coach; for good after thirty days. */
  deleted_at: string | null;
  /** The film and the points in it are gone because the consent ended; the numbers are kept. */
  purged_at: string | null;
  /** Counts saved changes of the marks, so that two tabs cannot overwrite each other. */
  revision: number;
}

interface TrackTable extends Stamped {
  id: string;
  clip_id: string;
  source: 'hand';
  /** Float32 little-endian behind a header; see `placedBlob.ts`. */
  points: Buffer;
}

interface StrikeTable extends Stamped {
  id: string;
  clip_id: string;
  technique: string;
  side: Side;
  /** Order within the clip, from 0. */
  position: number;
  /** The stretch of a long take that belongs to it, frames; null when it is the clip's only one. */
  from_frame: number | null;
  to_frame: number | null;
  /** Shared by the strikes of one combination. */
  combination: string | null;
  /** Found and named by the program, and not yet confirmed by the coach. */
  is_automatic: 0 | 1;
  /** JSON: choices of school said of this strike, or null. */
  school: string | null;
  situation: Situation | null;
  range: Range | null;
  /** JSON: the coach's word on what no camera can judge, or null. */
  audit: string | null;
  /** JSON: who left first as the coach saw it, looking blind, or null. */
  looks: string | null;
  /** The coach's words on the strike; null for none. */
  note: string | null;
  /** How many of the instants its technique has are not marked yet. */
  marks_left: number;
  /** Taken off the bench; kept so that undo brings its findings back. */
  removed_at: string | null;
}

interface MarkTable extends Stamped {
  strike_id: string;
  event: EventName;
  frame: number;
  /** Over how many frames the coach is unsure. */
  width: number;
  /** Real seconds from the clip's first frame, and one standard deviation. */
  time: number;
  sigma: number;
  source: Source;
}

export interface FindingTable extends Stamped {
  id: string;
  strike_id: string;
  fault: string;
  status: 'accepted' | 'dismissed' | 'later';
  /** The coach's reason when dismissed. */
  reason: string;
  /** Whose word it is, by name; null of what was said before that was kept. */
  decided_by: string | null;
  decided_at: string | null;
  evidence: string;
  /** JSON: the limits and readings that judged it. */
  judged_by: string;
  /** JSON: the choices of school it was judged by, in words. */
  judged_as: string | null;
  /** JSON: what it costs, or why that is not known. */
  cost: string | null;
  /** The coach says that it is gone, or that it does not hurt any more; and why. */
  cleared_at: string | null;
  cleared_because: string | null;
}

export interface CueTable extends Stamped {
  id: string;
  student_id: string;
  finding_id: string;
  technique: string;
  text: string;
  drill: string;
  status: 'active' | 'closed';
  closed_at: string | null;
  closed_because: 'replaced' | 'put aside' | 'mended' | 'film deleted' | 'film moved' | null;
}

export interface SurveyTable extends Stamped {
  clip_id: string;
  /** JSON: what going through the film once has told; see `video/survey.ts`. */
  survey: string;
}

export interface BandTurnTable extends Stamped {
  clip_id: string;
  /** JSON: the turn of hips and ribs in each frame, as worn bands tell it. */
  turns: string;
}

export interface CameraSetupTable extends Stamped {
  id: string;
  gym_id: string;
  name: string;
  /** Pixels of the pictures it was set in. */
  width: number;
  height: number;
  /** JSON: view, scale, target, rectangle, lens. */
  calibration: string;
}

export interface ViewPairTable extends Stamped {
  first_clip_id: string;
  second_clip_id: string;
  /** To add to a real time of the first film to get the second's, and one standard deviation. */
  seconds: number;
  sigma: number;
  by: 'sound' | 'eye';
  /** How many hits, or marks, it rests on. */
  pairs: number;
}

export interface TrackingTable extends Stamped {
  clip_id: string;
  model: Model;
  state: 'wanted' | 'paused' | 'done' | 'failed';
  message: string | null;
  /** JSON: frame and box that the coach has drawn round the student, or null. */
  person: string | null;
  /** JSON: where the coarse pass has found people; null until then. */
  found: string | null;
}

interface DetectionTable extends Stamped {
  id: Generated<number>;
  clip_id: string;
  /** Some detections; see `tracking/detectionBlob.ts`. */
  points: Buffer;
}

interface SeriesTable extends Stamped {
  clip_id: string;
  /** What the file was called that it came from. */
  file_name: string;
  /** Real time of the film at which the series' own time is 0, seconds. */
  begins: number;
  /** JSON: a track in space, as in docs/track-format.md. */
  track: string;
}

interface LibraryChangeTable extends Stamped {
  id: Generated<number>;
  gym_id: string;
  /** Who changed it. */
  by: string;
  what: string;
  before: string;
  after: string;
}

interface DeedTable extends Stamped {
  id: Generated<number>;
  gym_id: string;
  /** Whoever did it, by name. */
  by: string;
  what: DeedKind;
  /** A few words on it, or empty. */
  detail: string;
  student_id: string | null;
  clip_id: string | null;
}

export interface PrescriptionTable extends Stamped {
  id: string;
  student_id: string;
  /** The cue it is to bring about; null for work given for itself. */
  cue_id: string | null;
  technique: string | null;
  fault: string | null;
  drill: string;
  /** As it was given, whatever the library says by now. */
  name: string;
  dose: string;
  stances: Stances;
  intent: Intent;
  gate: string;
  /** YYYY-MM-DD */
  given_on: string;
  next_check: string;
  status: 'active' | 'done' | 'stopped';
  /** Why it was given although the order or the gate said no; else empty. */
  override: string;
}

export interface DrillLogTable extends Stamped {
  /** Made by the page, so that a log sent twice is kept once. */
  id: string;
  student_id: string;
  prescription_id: string | null;
  technique: string | null;
  name: string;
  /** The day in the gym, YYYY-MM-DD. */
  day: string;
  at: string;
  intent: Intent;
  strikes: number;
  seconds: number;
  /** Strikes without a timing fault, by the coach's eye; null when not judged. */
  clean: number | null;
  counted_by: CountedBy;
  deleted_at: string | null;
}

interface GateStepTable extends Stamped {
  id: string;
  student_id: string;
  technique: string;
  kind: 'override' | 'injury';
  at: string;
  to_intent: Intent | null;
  reason: string;
}

export interface PlanItemTable extends Stamped {
  id: string;
  gym_id: string;
  /** Null for the whole class. */
  student_id: string | null;
  day: string;
  /** Order within the day. */
  position: number;
  kind: 'session' | 'retest' | 'note';
  session: string | null;
  title: string;
  /** Shared by what was planned as one block. */
  block: string | null;
  done_at: string | null;
}

export interface NoteTable extends Stamped {
  id: string;
  student_id: string;
  technique: string | null;
  day: string;
  text: string;
  deleted_at: string | null;
}

export interface FieldTestTable extends Stamped {
  id: string;
  student_id: string;
  kind: string;
  day: string;
  /** JSON: what was measured by tape, scale, watch or film. */
  given: string;
  /** JSON: what follows from it. */
  result: string;
  deleted_at: string | null;
}

interface HurtNoteTable extends Stamped {
  id: string;
  student_id: string;
  /** YYYY-MM-DD */
  day: string;
  place: HurtPlace;
  /** The coach's own, or empty. */
  words: string;
  /** The coach's word that it is over, and why; null until then. */
  ended_at: string | null;
  ended_because: string | null;
}

interface RepeatMarkingTable extends Stamped {
  id: string;
  strike_id: string;
  by: string;
  /** JSON: the instants as they were marked again, without sight of the first marks. */
  marks: string;
}

export interface MeasuredTable extends Stamped {
  strike_id: string;
  /** What it was measured from; another stamp is another measurement. */
  stamp: string;
  /** JSON: what each link does. */
  links: string;
  /** What it was judged by; see `shownFaults.ts`. */
  rules: string;
  /** JSON: faults found, and faults that are not there. */
  shows: string;
  /** JSON, short; see `measured.ts`. */
  readings: string;
}

/** What films are found by; made when somebody looks, thrown away by triggers when it changes. */
interface FilmTextTable {
  id: Generated<number>;
  clip_id: string;
  words: string;
}

interface MeasuredSetTable extends Stamped {
  clip_id: string;
  technique: string;
  side: Side;
  /** Of which measured strikes it is; another stamp is another set. */
  stamp: string;
  /** JSON, short, as those of a strike: medians. */
  readings: string;
}

export interface Schema {
  gym: GymTable;
  student: StudentTable;
  consent: ConsentTable;
  sharing: SharingTable;
  clip: ClipTable;
  track: TrackTable;
  strike: StrikeTable;
  mark: MarkTable;
  finding: FindingTable;
  cue: CueTable;
  survey: SurveyTable;
  band_turn: BandTurnTable;
  camera_setup: CameraSetupTable;
  view_pair: ViewPairTable;
  tracking: TrackingTable;
  detection: DetectionTable;
  series: SeriesTable;
  library_change: LibraryChangeTable;
  deed: DeedTable;
  prescription: PrescriptionTable;
  drill_log: DrillLogTable;
  gate_step: GateStepTable;
  plan_item: PlanItemTable;
  note: NoteTable;
  field_test: FieldTestTable;
  hurt_note: HurtNoteTable;
  repeat_marking: RepeatMarkingTable;
  measured: MeasuredTable;
  measured_set: MeasuredSetTable;
  film_text: FilmTextTable;
}
