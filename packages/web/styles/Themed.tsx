import { ConfigProvider } from 'antd';
import { useEffect, useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { useLook } from '../shell/look-store';
import { themeOf } from './theme';

/** What the system says of how things are to be shown, as a component reads it. */
function asked(query: string): () => boolean {
  const said = window.matchMedia(query);
  const listen = (hear: () => void) => {
    said.addEventListener('change', hear);
    return () => said.removeEventListener('change', hear);
  };
  return () => useSyncExternalStore(listen, () => said.matches);
}
const useIsNight = asked('(prefers-color-scheme: dark)');
/** Whoever is made dizzy by things that fold and slide has asked the system for none. */
const useIsStill = asked('(prefers-reduced-motion: reduce)');

/** Whether the dark look is on. */
export function useIsDark(): boolean {
  const { look } = useLook();
  const isNight = useIsNight();
  return look === 'dark' || (look === 'system' && isNight);
}

/** Gives everything inside the look that is set, or that of the system. */
export function Themed({ children }: { children: ReactNode }) {
  const { isLarge } = useLook();
  const isDark = useIsDark();
  useEffect(() => {
    const { dataset } = document.documentElement;
    dataset.theme = isDark ? 'dark' : 'light';
    dataset.text = isLarge ? 'large' : 'usual';
  }, [isDark, isLarge]);
  const isStill = useIsStill();
  const theme = useMemo(() => themeOf(isDark, isLarge, isStill), [isDark, isLarge, isStill]);
  return (
    <ConfigProvider theme={theme} wave={{ disabled: isStill }}>
      {children}
    </ConfigProvider>
  );
}
