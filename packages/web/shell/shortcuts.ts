import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { queries } from '../api/queries';
import { entriesOf } from '../areas/daybook/entries';
import { AREAS } from './areas';
import { goToRegion } from './regions';
import { useShell } from './shell-store';
import { inField } from './use-scanner';

/** Whether a text is being typed; an empty field that waits for the next scan is none. */
const isTyping = (target: EventTarget | null): boolean =>
  inField(target) && !(target instanceof HTMLInputElement && target.value === '');

export const focusScanLine = (): void => {
  const line = document.getElementById('scan-line') as HTMLInputElement | null;
  line?.focus();
  line?.select();
};

/** Keys that work everywhere. */
export function useShortcuts(): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { undo, showKeys } = useShell.getState();
      if (event.altKey && /^Digit\d$/.test(event.code)) {
        // The tenth is under the nought behind the nine.
        const area = AREAS[(Number(event.code.slice(5)) + 9) % 10];
        if (!area) return;
        event.preventDefault();
        void navigate(area.path);
      } else if (event.key === 'F6') {
        event.preventDefault();
        goToRegion(event.shiftKey ? -1 : 1);
      } else if (event.altKey && event.code === 'KeyZ') {
        event.preventDefault();
        // A text is being typed: taking an act back is not what is meant.
        if (isTyping(event.target)) return;
        void lastUndoable().then((entry) => entry && undo(entry));
      } else if (event.key === '/' && !inField(event.target) && !event.ctrlKey) {
        event.preventDefault();
        focusScanLine();
      } else if (event.key === '?' && !inField(event.target)) {
        showKeys(true);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate]);
}

/** The last act of the person who is signed in that can be undone; nobody else's. */
async function lastUndoable(): Promise<number | null> {
  const { rows } = await queries.fetchQuery({
    queryKey: ['/daybook', 'mine'],
    staleTime: 0,
    queryFn: () => entriesOf({ mine: '1' }),
  });
  return rows.find((r) => r.undoable && r.undoes === null)?.id ?? null;
}
