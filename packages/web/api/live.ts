import { refreshAll } from './queries';

/** Milliseconds after which a stream that the browser gave up is asked for again. */
const AGAIN = 3000;

/**
 * Follows an event stream of the API while the tab is in sight. Browsers keep few connections to one server, so a tab in
 * the background gives its own up; when it comes back, or the network does, everything on screen is read again, for nobody
 * told what happened meanwhile. Gives the way to stop.
 */
export function followLive<T>(path: string, hear: (message: T) => void, onOpen?: () => void): () => void {
  let events: EventSource | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  let isBroken = false;
  const close = () => {
    clearTimeout(again);
    events?.close();
    events = null;
  };
  const open = () => {
    close();
    const stream = new EventSource(`/api${path}`);
    events = stream;
    stream.onmessage = (message) => hear(JSON.parse(String(message.data)) as T);
    stream.onopen = () => {
      if (!isBroken) return;
      isBroken = false;
      onOpen?.();
      void refreshAll();
    };
    stream.onerror = () => {
      isBroken = true;
      // The browser itself tries again unless it was given an answer that is no stream.
      if (stream.readyState === EventSource.CLOSED && stream === events) again = setTimeout(open, AGAIN);
    };
  };
  const onVisibility = () => {
    if (document.visibilityState === 'hidden') close();
    else if (!events) {
      onOpen?.();
      open();
      void refreshAll();
    }
  };
  onOpen?.();
  open();
  document.addEventListener('visibilitychange', onVisibility);
  return () => {
    close();
    document.removeEventListener('visibilitychange', onVisibility);
  };
}
