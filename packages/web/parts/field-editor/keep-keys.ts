import type { KeyboardEvent } from 'react';

/** The keys of a field that is edited: Enter keeps, Esc cancels, Ctrl S keeps and goes on to what saves the whole. */
export const keepKeys = (save: () => void, cancel: () => void) => (event: KeyboardEvent) => {
  if (event.defaultPrevented) return;
  if (event.key === 'Escape') {
    event.stopPropagation();
    cancel();
  } else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) {
    event.preventDefault();
    save();
  } else if (event.code === 'KeyS' && event.ctrlKey) save();
};
