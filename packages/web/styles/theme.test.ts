import { theme } from 'antd';
import { themeOf } from './theme';

const durations = (isDark: boolean, isStill: boolean): string[] =>
  Object.entries(theme.getDesignToken(themeOf(isDark, false, isStill)))
    .filter(([name]) => name.startsWith('motionDuration'))
    .map(([, lasts]) => String(lasts));

test.each([true, false])(
  'where stillness is asked for, nothing moves for as long as is seen (dark: %s)',
  (isDark) => {
    expect(durations(isDark, true).length).toBeGreaterThan(2);
    for (const lasts of durations(isDark, true)) expect(parseFloat(lasts)).toBeLessThanOrEqual(0.02);
    expect(durations(isDark, false).some((lasts) => parseFloat(lasts) > 0.05)).toBe(true);
  },
);
