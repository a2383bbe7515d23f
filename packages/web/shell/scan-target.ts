import { useEffect } from 'react';
import { create } from 'zustand';

type Take = (code: string) => void;
interface Targets {
  readonly take: Take | null;
  readonly name: string | null;
  /** What is being edited, so that no scan may lead away from it; null for nothing. */
  readonly editing: string | null;
  set(take: Take | null, name: string | null): void;
}

/** Where a scan goes: to the work that waits for scans, else to the scan line. */
export const useScanTarget = create<Targets>((set) => ({
  take: null,
  name: null,
  editing: null,
  set: (take, name) => set({ take, name }),
}));

/** While mounted, scans from anywhere outside a field come here. */
export function useTakesScans(name: string, take: Take | null): void {
  useEffect(() => {
    if (!take) return;
    useScanTarget.getState().set(take, name);
    return () => {
      if (useScanTarget.getState().take === take) useScanTarget.getState().set(null, null);
    };
  }, [name, take]);
}

/** While mounted, scans from outside a field that takes codes are told and lead nowhere: what is typed here is not lost. */
export function useKeepsScansOut(what: string): void {
  useEffect(() => {
    useScanTarget.setState({ editing: what });
    return () => useScanTarget.setState({ editing: null });
  }, [what]);
}
