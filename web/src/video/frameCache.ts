/**
 * Decoded frames kept in memory up to a number of bytes. When it is full, the frame farthest from
 * the one being looked at goes first.
 */
export class FrameCache<Frame> {
  private readonly frames = new Map<number, { frame: Frame; bytes: number }>();
  private held = 0;

  constructor(private readonly limit: number) {}

  get(index: number): Frame | undefined {
    return this.frames.get(index)?.frame;
  }

  has(index: number): boolean {
    return this.frames.has(index);
  }

  /** @param cursor the frame that is looked at; it is never the one to go */
  put(index: number, frame: Frame, bytes: number, cursor: number): void {
    if (this.frames.has(index)) return;
    this.frames.set(index, { frame, bytes });
    this.held += bytes;
    while (this.held > this.limit && this.frames.size > 1) this.dropFarthest(cursor);
  }

  private dropFarthest(cursor: number): void {
    let farthest = -1;
    let distance = -1;
    for (const index of this.frames.keys()) {
      const away = Math.abs(index - cursor);
      if (away > distance) [farthest, distance] = [index, away];
    }
    this.held -= this.frames.get(farthest)!.bytes;
    this.frames.delete(farthest);
  }
}
