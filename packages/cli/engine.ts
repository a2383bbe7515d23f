import { setFlagsFromString } from 'node:v8';

/**
 * Tells the engine, before its threads begin, to compile all code quickly first and, when it compiles it anew, not to copy
 * functions into their callers. Seventy checks are much code, and each thread compiles it for itself: of the time that
 * 100,000 records took, these two saved a tenth (docs/benchmarks.md).
 */
export function forMuchCode(): void {
  setFlagsFromString('--sparkplug');
  setFlagsFromString('--max-inlined-bytecode-size-cumulative=0');
}
