/** Saves the latest document a moment after it has changed, one request at a time. */
import PQueue from 'p-queue';
import type { ClipDocument } from '@sinew/core/analysis/clipDocument';

export type SaveState =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** Not on disk; `isFinal` when trying again would not help. */
  | { readonly kind: 'failed'; readonly message: string; readonly isFinal: boolean };

/** Milliseconds of quiet before a change is sent, and before a failed one is sent again. */
const PAUSE = 350;
const RETRY = 4000;

export class Autosave {
  private pending: ClipDocument | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private isOver = false;
  private readonly requests = new PQueue({ concurrency: 1 });

  constructor(
    private readonly url: string,
    private revision: number,
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
  continueFrom(revision: number): boolean {
    if (revision === this.revision || !this.isClean || this.isOver) return false;
    this.revision = revision;
    return true;
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
      const body = JSON.stringify({ revision: this.revision, document });
      const response = await fetch(this.url, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body,
        // Outlives a page that is being closed; browsers allow this up to 64 KiB.
        keepalive: body.length < 60_000,
      });
      const answer = (await response.json()) as { revision?: number; message?: string };
      if (response.ok) {
        this.revision = answer.revision!;
        if (!this.pending) this.onState({ kind: 'saved' });
      } else {
        this.fail(document, answer.message ?? 'The marks were not saved.', response.status < 500);
      }
    } catch {
      this.fail(document, 'Not saved yet: the server does not answer. Trying again.', false);
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
