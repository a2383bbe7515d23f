import { useEffect } from 'react';
import { create } from 'zustand';

type Take = (code: string) => void;
interface Targets {
  readonly take: Take | null;
  readonly name: string | null;
  set(take: Take | null, name: string | null): void;
}

/** Where a scan goes: to the work that waits for scans, else to the scan line. */
export const useScanTarget = create<Targets>((set) => ({
  take: null,
  name: null,
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
