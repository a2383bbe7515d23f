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
