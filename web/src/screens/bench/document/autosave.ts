/** Saves the latest document a moment after it has changed, one request at a time. */
import PQueue from 'p-queue';
import type { ClipDocument } from '@sinew/core/analysis/clipDocument';
import { Problem, type ProblemCode } from '@sinew/core/foundation/problem/problem';
import { ask } from '@/api/client';
import { SAVE_BENCH } from '@/api/endpoints';
import type { SavedBench } from '@/data/bench/bench';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** Somebody else has saved since this bench was begun; the coach decides. */
  | { readonly kind: 'met'; readonly base: ClipDocument; readonly mine: ClipDocument }
  /** Not on disk; `isFinal` when trying again would not help. */
  | { readonly kind: 'failed'; readonly message: string; readonly isFinal: boolean };

/** Milliseconds of quiet before a change is sent, and before a failed one is sent again. */
const PAUSE = 350;
const RETRY = 4000;
/** Trying again would not help. */
const FINAL: ReadonlySet<ProblemCode> = new Set<ProblemCode>([
  'not-understood',
  'refused',
  'gone',
  'foreign',
]);

export class Autosave {
  private pending: ClipDocument | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private isOver = false;
  private readonly requests = new PQueue({ concurrency: 1 });

  constructor(
    private readonly clipId: string,
    private revision: number,
    /** What is on disk at this revision. */
    private base: ClipDocument,
    private readonly onState: (state: SaveState) => void,
  ) {}

  change(document: ClipDocument): void {
    if (this.isOver) return;
    this.pending = document;
    this.onState({ kind: 'saving' });
    this.schedule(PAUSE);
  }

  /**
   * Go on from a state found on disk.
   *
   * @returns false when it is known already, or something waits here to be saved
   */
  continueFrom({ revision, document }: SavedBench): boolean {
    if (revision === this.revision || !this.isClean || this.isOver) return false;
    [this.revision, this.base] = [revision, document];
    return true;
  }

  /** Go on after somebody else has saved, from what they have; what is to be saved is said anew. */
  settle({ revision, document }: SavedBench): void {
    [this.revision, this.base, this.pending, this.isOver] = [revision, document, null, false];
    this.onState({ kind: 'saved' });
  }

  get isClean(): boolean {
    return this.pending === null && this.requests.size + this.requests.pending === 0;
  }

  /** Send what is waiting now. Resolves when all is on disk or has failed. */
  async flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    await this.requests.add(() => this.send());
  }

  private schedule(wait: number): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), wait);
  }

  private async send(): Promise<void> {
    const document = this.pending;
    if (document === null) return;
    this.pending = null;
    try {
      const { revision } = await ask(
        SAVE_BENCH,
        [this.clipId],
        { revision: this.revision, document },
        // A page that is being closed saves too.
        { keepalive: true },
      );
      [this.revision, this.base] = [revision, document];
      if (!this.pending) this.onState({ kind: 'saved' });
    } catch (error) {
      if (error instanceof Problem && error.code === 'conflict') {
        this.isOver = true;
        this.onState({ kind: 'met', base: this.base, mine: document });
      } else if (error instanceof Problem && FINAL.has(error.code)) {
        this.fail(document, error.message, true);
      } else {
        this.fail(document, 'Not saved yet: the server does not answer. Trying again.', false);
      }
    }
  }

  private fail(document: ClipDocument, message: string, isFinal: boolean): void {
    this.isOver = isFinal;
    this.onState({ kind: 'failed', message, isFinal });
    if (isFinal) return;
    this.pending ??= document;
    this.schedule(RETRY);
  }
}
