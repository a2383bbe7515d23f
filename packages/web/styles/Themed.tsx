import { ConfigProvider } from 'antd';
import { useEffect, useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { useLook } from '../shell/look-store';
import { themeOf } from './theme';

/** What the system asks for: a media query that is heard, and whether it holds. */
const wish = (query: string) => {
  const media = window.matchMedia(query);
  const hear = (heard: () => void) => {
    media.addEventListener('change', heard);
    return () => media.removeEventListener('change', heard);
  };
  return [hear, () => media.matches] as const;
};
const night = wish('(prefers-color-scheme: dark)');
const stillness = wish('(prefers-reduced-motion: reduce)');

/** Whether the dark look is on. */
export function useIsDark(): boolean {
  const { look } = useLook();
  const isNight = useSyncExternalStore(...night);
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
  const isStill = useSyncExternalStore(...stillness);
  const theme = useMemo(() => themeOf(isDark, isLarge, isStill), [isDark, isLarge, isStill]);
  const wave = useMemo(() => ({ disabled: isStill }), [isStill]);
  return (
    <ConfigProvider theme={theme} wave={wave}>
      {children}
    </ConfigProvider>
  );
}
