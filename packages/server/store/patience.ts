/** Milliseconds that long work waits for others at most before it goes on. */
const MOST = 100;

/** How long work may wait for others: as long as it has worked since it last waited, and no longer than a tenth of a second. */
export class Patience {
  private from: number;

  constructor(readonly now = () => performance.now()) {
    this.from = now();
  }

  /** Milliseconds that may be waited now. */
  left(): number {
    return Math.min(MOST, this.now() - this.from);
  }

  /** Tells that so many milliseconds were waited, up to now. */
  waited(milliseconds: number): void {
    const now = this.now();
    const before = Math.min(MOST, now - milliseconds - this.from);
    this.from = now - Math.max(0, before - milliseconds);
  }
}

/**
 * The same for a thread that has nothing else to do: it sleeps while requests are being answered (`answering` counts them), for as long as its
 * patience lasts.
 */
export function sleepWhileAsked(answering: Int32Array, patience: Patience): void {
  for (;;) {
    const asked = Atomics.load(answering, 0);
    const left = asked === 0 ? 0 : patience.left();
    if (left < 1) return;
    const began = patience.now();
    Atomics.wait(answering, 0, asked, left);
    patience.waited(patience.now() - began);
  }
}
