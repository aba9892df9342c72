/** The state of one bench: the document with its undo, where the coach is, and what is in hand. */
import { createStore, useStore } from 'zustand';
import { createContext, useContext } from 'react';
import type { Landmark } from '@sinew/core/foundation/body/landmarks';
import type { Rectangle } from '@sinew/core/reconstruct/calibration/calibration';
import type { EventName } from '@sinew/core/measure/events/events';
import type { LimbDoubt } from '@sinew/core/observe/track/limbDoubts';
import type { KeptBands } from '@sinew/core/observe/band/bandTurns';
import type { PoseDetection } from '@sinew/core/observe/track/poseDetection';
import type { JudgedId } from '@sinew/core/judge/fault/schema';
import type { ImportedSeries, StudentFacts } from '@sinew/core/analysis/clipFacts';
import type { DrawingKind } from '@sinew/core/analysis/drawing';
import type { ClipDocument, StrikeDocument } from '@sinew/core/analysis/clipDocument';
import type { SavedBench } from '@/data/bench/bench';
import type { Clip } from '@/data/clip/clips';
import type { SecondView } from '@/data/clip/viewPairs';
import type { Job } from '@/api/job';
import type { Survey } from '@sinew/core/observe/take/survey';
import type { SurveyState } from '@/video/useSurvey';
import { Autosave, type SaveState } from './autosave';
import { toggleMark } from './edits';
import * as history from './history';
import type { Pace } from '@/ui/pace';

/** What a click on the picture does. */
export type Tool =
  | { readonly kind: 'look' }
  | { readonly kind: 'place'; readonly landmark: Landmark }
  /** Both hips and both shoulders, frame by frame through the turn. */
  | { readonly kind: 'turn' }
  | { readonly kind: 'scale' }
  | { readonly kind: 'target' }
  | { readonly kind: 'rectangle'; readonly of: Rectangle['kind'] }
  | { readonly kind: 'straight' }
  /** A box round the student, for the body tracker. */
  | { readonly kind: 'person' }
  | { readonly kind: 'ruler' }
  /** By hand, to show something. */
  | { readonly kind: 'draw'; readonly of: DrawingKind };

interface SurveyControl {
  cancel(): void;
  again(): void;
}

export interface BenchClip extends Omit<Clip, 'createdAt' | 'bytes' | 'sha256'> {
  readonly studentName: string;
}

export interface BenchState {
  readonly clip: BenchClip;
  readonly student: StudentFacts;
  readonly history: history.History<ClipDocument>;
  readonly strikeId: string | null;
  /** The frame asked for, and the frame the picture shows. */
  readonly frame: number;
  readonly shownFrame: number | null;
  readonly tool: Tool;
  readonly selectedPoint: { readonly landmark: Landmark; readonly frame: number } | null;
  readonly selectedMark: EventName | null;
  /** By its id. */
  readonly selectedDrawing: string | null;
  /** How fast it plays, of true speed. */
  readonly pace: Pace;
  /** Seconds from and to that playing goes round in; null for the strike, or the clip. */
  readonly loop: { readonly name: string; readonly span: readonly [number, number] } | null;
  /** The way of hand, elbow and belt is drawn. */
  readonly isTrailOn: boolean;
  readonly isPlaying: boolean;
  readonly save: SaveState;
  /** What going through the film has told so far. */
  readonly survey: SurveyState;
  readonly surveyControl: SurveyControl | null;
  /** The film of the same take from another side, or null. */
  readonly second: SecondView | null;
  /** How the body tracking of this clip stands; null when nobody has asked for it. */
  readonly job: Job | null;
  /** What the tracker saw in this film, and in the one of the other side. */
  readonly detections: readonly PoseDetection[];
  readonly secondDetections: readonly PoseDetection[];
  /** A body in space that was measured elsewhere. */
  readonly series: ImportedSeries | null;
  /** What worn bands have told; null until they have been read. */
  readonly bands: KeptBands | null;
  /** The doubtful stretch that is being looked at. */
  readonly doubt: LimbDoubt | null;
  /** The reading that is drawn on the picture. */
  readonly evidence: JudgedId | null;
  readonly error: string | null;

  edit(next: ClipDocument, gesture?: string): void;
  undo(): void;
  redo(): void;
  goTo(frame: number): void;
  shown(frame: number): void;
  setTool(tool: Tool): void;
  selectPoint(point: { landmark: Landmark; frame: number } | null): void;
  selectMark(event: EventName | null): void;
  /** Take a strike in hand, and go to it when it is elsewhere in the take. */
  selectStrike(id: string): void;
  /** Mark an event of the strike in hand on the frame in hand, or clear it there. */
  mark(event: EventName): void;
  selectDrawing(id: string | null): void;
  setPlaying(isPlaying: boolean): void;
  setPace(pace: Pace): void;
  setLoop(loop: BenchState['loop']): void;
  showTrail(isOn: boolean): void;
  surveyed(survey: SurveyState, control: SurveyControl): void;
  joinedWith(second: SecondView | null): void;
  tracked(job: Job | null, detections: readonly PoseDetection[]): void;
  banded(bands: KeptBands | null): void;
  trackedInSecond(detections: readonly PoseDetection[]): void;
  imported(series: ImportedSeries | null): void;
  /** Take a doubtful stretch in hand and go to its middle. */
  lookInto(doubt: LimbDoubt | null): void;
  /** Go to the frame that shows a reading, and draw there what was measured. */
  showEvidence(reading: JudgedId, frame: number): void;
  hideEvidence(): void;
  fail(message: string): void;
  /** Take over what is on disk, unless it is known or something has been changed here since. @returns whether */
  adopt(saved: SavedBench): boolean;
  /**
   * Go on from what somebody else has saved.
   *
   * @param wanted what is to stand there instead; undo brings theirs back
   */
  settle(saved: SavedBench, wanted: ClipDocument | null): void;
  /** Make sure that everything is on disk. */
  flush(): Promise<void>;
  hasUnsaved(): boolean;
}

export type BenchStore = ReturnType<typeof createBenchStore>;

export function createBenchStore(
  clip: BenchClip,
  student: StudentFacts,
  saved: SavedBench,
  start: { strikeId: string | null; frame: number },
  take: {
    survey: Survey | null;
    second: SecondView | null;
    job: Job | null;
    series: ImportedSeries | null;
    bands: KeptBands | null;
  },
) {
  return createStore<BenchState>()((set, get) => {
    const autosave = new Autosave(clip.id, saved.revision, saved.document, (save) => set({ save }));
    const become = (next: history.History<ClipDocument>) => {
      if (next === get().history) return;
      autosave.change(next.present);
      const strikes = next.present.strikes;
      const isKept = strikes.some((strike) => strike.id === get().strikeId);
      set({
        history: next,
        ...(!isKept && { strikeId: strikes[strikes.length - 1]?.id ?? null }),
      });
    };
    /** The strike in hand is the one that the frame in hand is in, where there is one. */
    const takeStrikeHere = () => {
      const { frame } = get();
      const isHere = ({ span }: StrikeDocument) =>
        span !== undefined && frame >= span.from && frame <= span.to;
      const own = strikeOf(get());
      if (!own || isHere(own)) return;
      const here = documentOf(get()).strikes.find(isHere);
      if (here) set({ strikeId: here.id, selectedMark: null });
    };
    const beginFrom = (document: ClipDocument) => {
      const { strikes } = document;
      const isKept = strikes.some((strike) => strike.id === get().strikeId);
      const strikeId = isKept ? get().strikeId : (strikes[0]?.id ?? null);
      set({ history: history.begin(document), strikeId });
    };
    return {
      clip,
      student,
      history: history.begin(saved.document),
      strikeId: start.strikeId ?? saved.document.strikes[0]?.id ?? null,
      frame: start.frame,
      shownFrame: null,
      tool: { kind: 'look' },
      selectedPoint: null,
      selectedMark: null,
      selectedDrawing: null,
      pace: 1 / 8,
      loop: null,
      isTrailOn: false,
      isPlaying: false,
      save: { kind: 'saved' },
      survey: take.survey
        ? { kind: 'done', survey: take.survey }
        : { kind: 'running', progress: { share: 0, left: null } },
      surveyControl: null,
      second: take.second,
      job: take.job,
      detections: [],
      secondDetections: [],
      series: take.series,
      bands: take.bands,
      doubt: null,
      evidence: null,
      error: null,

      edit: (next, gesture) => become(history.change(get().history, next, gesture ?? null)),
      undo: () => {
        become(history.undo(get().history));
        takeStrikeHere();
      },
      redo: () => {
        become(history.redo(get().history));
        takeStrikeHere();
      },
      goTo: (frame) => {
        const last = clip.frameTimes.length - 1;
        set({ frame: Math.min(last, Math.max(0, Math.round(frame))) });
      },
      shown: (shownFrame) => set({ shownFrame }),
      setTool: (tool) => set({ tool }),
      selectPoint: (selectedPoint) =>
        set({ selectedPoint, selectedMark: null, selectedDrawing: null }),
      selectMark: (selectedMark) =>
        set({ selectedMark, selectedPoint: null, selectedDrawing: null }),
      selectDrawing: (selectedDrawing) =>
        set({ selectedDrawing, selectedPoint: null, selectedMark: null }),
      selectStrike: (strikeId) => {
        set({ strikeId, selectedMark: null, evidence: null, loop: null });
        const { frame, goTo } = get();
        const { span, marks } = strikeOf(get()) ?? {};
        const isElsewhere = span !== undefined && (frame < span.from || frame > span.to);
        if (isElsewhere) goTo(marks?.contact?.frame ?? span.from);
      },
      mark: (event) => {
        const state = get();
        const strike = strikeOf(state);
        if (!strike) return;
        const next = toggleMark(documentOf(state), strike, event, state.frame);
        state.edit(next);
        const isSet = strikeOf(get())?.marks[event] !== undefined;
        state.selectMark(isSet ? event : null);
      },
      setPlaying: (isPlaying) => set({ isPlaying }),
      setPace: (pace) => set({ pace }),
      setLoop: (loop) => set({ loop }),
      showTrail: (isTrailOn) => set({ isTrailOn }),
      surveyed: (survey, surveyControl) => set({ survey, surveyControl }),
      joinedWith: (second) => set({ second, secondDetections: [] }),
      tracked: (job, detections) => set({ job, detections }),
      banded: (bands) => set({ bands }),
      trackedInSecond: (secondDetections) => set({ secondDetections }),
      imported: (series) => set({ series }),
      lookInto: (doubt) => {
        set({ doubt });
        if (doubt) get().goTo((doubt.from + doubt.to) >> 1);
      },
      showEvidence: (evidence, frame) => {
        get().goTo(frame);
        set({ evidence });
      },
      hideEvidence: () => set({ evidence: null }),
      fail: (error) => set({ error, isPlaying: false }),
      adopt: (newest) => {
        if (!autosave.continueFrom(newest)) return false;
        beginFrom(newest.document);
        return true;
      },
      settle: (newest, wanted) => {
        autosave.settle(newest);
        beginFrom(newest.document);
        if (wanted) become(history.change(get().history, wanted, null));
      },
      flush: () => autosave.flush(),
      hasUnsaved: () => !autosave.isClean || get().save.kind === 'met',
    };
  });
}

export const BenchContext = createContext<BenchStore | null>(null);

export function useBenchStore(): BenchStore {
  const store = useContext(BenchContext);
  if (!store) throw new Error('a part of the bench stands outside its bench');
  return store;
}

export function useBench<T>(select: (state: BenchState) => T): T {
  return useStore(useBenchStore(), select);
}

export function documentOf(state: BenchState): ClipDocument {
  return state.history.present;
}

export function strikeOf(state: BenchState): StrikeDocument | null {
  return documentOf(state).strikes.find((strike) => strike.id === state.strikeId) ?? null;
}

/** Whether something is being drawn on the picture, which then must be free everywhere. */
export function isDrawing({ tool }: BenchState): boolean {
  return tool.kind !== 'look' && tool.kind !== 'place';
}
