import { create } from 'zustand';
import type { Look } from '../styles/theme';

const LOOKS: readonly Look[] = ['system', 'light', 'dark'];

interface LookStore {
  readonly look: Look;
  /** Larger text. */
  readonly isLarge: boolean;
  setLook(look: Look): void;
  setLarge(isLarge: boolean): void;
}

/** How the application looks on this computer; kept in the browser. */
export const useLook = create<LookStore>((set) => ({
  look: LOOKS.find((l) => l === localStorage.getItem('osier-look')) ?? 'system',
  isLarge: localStorage.getItem('osier-text') === 'large',
  setLook(look) {
    localStorage.setItem('osier-look', look);
    set({ look });
  },
  setLarge(isLarge) {
    localStorage.setItem('osier-text', isLarge ? 'large' : 'usual');
    set({ isLarge });
  },
}));
