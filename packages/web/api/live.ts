import { refresh } from './queries';

/**
 * Follows an event stream of the API while the tab is in sight. Browsers keep few connections to one server, so a tab in
 * the background gives its own up; when it comes back, everything on screen is read again. Gives the way to stop.
 */
export function followLive<T>(path: string, hear: (message: T) => void, onOpen?: () => void): () => void {
  let events: EventSource | null = null;
  const open = () => {
    onOpen?.();
    events = new EventSource(`/api${path}`);
    events.onmessage = (message) => hear(JSON.parse(String(message.data)) as T);
  };
  const onVisibility = () => {
    if (document.visibilityState === 'hidden') {
      events?.close();
      events = null;
    } else if (!events) {
      open();
      void refresh();
    }
  };
  open();
  document.addEventListener('visibilitychange', onVisibility);
  return () => {
    events?.close();
    document.removeEventListener('visibilitychange', onVisibility);
  };
}
