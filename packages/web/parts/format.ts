import { useEffect } from 'react';
import { create } from 'zustand';

type Format = typeof import('@osier/core/format');

/** MARC 21's names and meanings, once they are here: one for all fields, of which a record may have hundreds. */
const useKept = create<{ readonly format?: Format; readonly isAsked?: boolean }>(() => ({}));

/** Loads them, once; when that fails, the next field that is drawn asks again. */
export async function loadFormat(): Promise<void> {
  if (useKept.getState().isAsked) return;
  useKept.setState({ isAsked: true });
  try {
    const format = await import('@osier/core/format');
    useKept.setState({ format });
  } catch {
    useKept.setState({ isAsked: false });
  }
}

/** MARC 21's names and meanings; loaded when the first field view needs them. */
export function useFormat(): Format | undefined {
  const format = useKept((s) => s.format);
  useEffect(() => {
    if (!format) void loadFormat();
  }, [format]);
  return format;
}

/** A number as it is read: its thousands set apart. */
export const inWords = (n: number): string => n.toLocaleString('en-GB');
