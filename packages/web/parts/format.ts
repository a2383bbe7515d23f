import { useEffect } from 'react';
import { create } from 'zustand';

type Format = typeof import('@osier/core/format');

/** MARC 21's names and meanings, once they are here: one for all fields, of which a record may have hundreds. */
const useKept = create<{ readonly format?: Format; readonly isAsked?: boolean }>(() => ({}));

function load(): void {
  if (useKept.getState().isAsked) return;
  useKept.setState({ isAsked: true });
  import('@osier/core/format').then(
    (format) => useKept.setState({ format }),
    // The next field that is drawn asks again.
    () => useKept.setState({ isAsked: false }),
  );
}

/** MARC 21's names and meanings; loaded when the first field view needs them. */
export function useFormat(): Format | undefined {
  const format = useKept((s) => s.format);
  useEffect(() => {
    if (!format) load();
  }, [format]);
  return format;
}

/** A number as it is read: its thousands set apart. */
export const inWords = (n: number): string => n.toLocaleString('en-GB');
