import { ConfigProvider } from 'antd';
import { useEffect, useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { useLook } from '../shell/look-store';
import { themeOf } from './theme';

const night = window.matchMedia('(prefers-color-scheme: dark)');
const onNight = (hear: () => void) => {
  night.addEventListener('change', hear);
  return () => night.removeEventListener('change', hear);
};

/** Whether the dark look is on. */
export function useIsDark(): boolean {
  const { look } = useLook();
  const isNight = useSyncExternalStore(onNight, () => night.matches);
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
  const theme = useMemo(() => themeOf(isDark, isLarge), [isDark, isLarge]);
  return <ConfigProvider theme={theme}>{children}</ConfigProvider>;
}
