// What browsers have and jsdom has not, as far as the parts under test need it.
import { TextDecoder, TextEncoder } from 'node:util';

if (typeof window !== 'undefined') {
  Object.assign(window, { TextDecoder, TextEncoder });
  window.matchMedia ??= (query) =>
    ({
      matches: false,
      media: query,
      addListener: () => undefined,
      removeListener: () => undefined,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }) as unknown as MediaQueryList;
  // jsdom knows no pseudo-elements, and says so aloud every time.
  const styleOf = window.getComputedStyle.bind(window);
  window.getComputedStyle = (element) => styleOf(element);
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
}

/** jsdom has no message channels; the component library sends itself one to go on a moment later. */
class NextMoment {
  readonly port1: { onmessage: ((event: object) => void) | null } = { onmessage: null };
  readonly port2 = { postMessage: () => void setTimeout(() => this.port1.onmessage?.({}), 0) };
}
if (typeof window !== 'undefined' && !('MessageChannel' in globalThis))
  Object.assign(globalThis, { MessageChannel: NextMoment });

// The component library is slow to draw in jsdom, the more so beside other tests: what a test waits for is given time.
if (typeof window !== 'undefined')
  void import('@testing-library/dom').then(({ configure }) => configure({ asyncUtilTimeout: 20_000 }));
