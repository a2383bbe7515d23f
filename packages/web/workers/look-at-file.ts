import { fileLook, type FileLook } from '@osier/core/deliveries';
import type { HouseRules } from '@osier/core/house';

/** What the page hands over, and what comes back every so often until `done`. */
export interface LookOrder {
  readonly file: File;
  readonly house: HouseRules;
}
export interface LookProgress {
  readonly look: FileLook;
  readonly done: boolean;
}

const EVERY = 150;

/** Reads and checks a file beside the page, which stays free; the file does not leave this computer. */
self.onmessage = (event: MessageEvent<LookOrder>) => {
  // Thrown outside the promise, so that the page hears of it as an error of the worker.
  lookAt(event.data).catch((error: unknown) => setTimeout(() => reportError(error)));
};

async function lookAt({ file, house }: LookOrder): Promise<void> {
  const work = fileLook(house);
  const tell = (done: boolean) => self.postMessage({ look: work.look(), done } satisfies LookProgress);
  const source = file.stream().getReader();
  let told = performance.now();
  for (;;) {
    const { value, done } = await source.read();
    if (done) break;
    work.push(value);
    if (work.look().problem) break;
    if (performance.now() - told < EVERY) continue;
    tell(false);
    told = performance.now();
  }
  work.end();
  tell(true);
}
