import { theme as antd, type ThemeConfig } from 'antd';

/** How the application looks: as the system has it, or as it is set. */
export type Look = 'system' | 'light' | 'dark';

const SHARED = {
  borderRadius: 3,
  borderRadiusLG: 3,
  borderRadiusSM: 2,
  fontFamily: 'var(--sans)',
  controlHeight: 30,
  boxShadow: 'none',
  motionDurationMid: '0.08s',
  motionDurationSlow: '0.12s',
};

/** Nothing is seen to move. Not “no motion”: without any, the library opens a dialog with the focus on its closing button. */
const STILL = { motionDurationFast: '0.01s', motionDurationMid: '0.01s', motionDurationSlow: '0.01s' };

const LIGHT: ThemeConfig = {
  token: {
    ...SHARED,
    colorPrimary: '#3c6a4b',
    colorText: '#22302a',
    colorTextSecondary: '#566560',
    colorTextPlaceholder: '#66736d',
    colorTextDescription: '#566560',
    colorBgBase: '#fffdf8',
    colorBgLayout: '#f5f1e8',
    colorBorder: '#bdb49f',
    colorBorderSecondary: '#d8d0bf',
    colorError: '#9e3328',
    colorWarning: '#8f5b00',
    colorInfo: '#2f5d7c',
    colorLink: '#2f5d7c',
    colorSuccess: '#3c6a4b',
    boxShadowSecondary: '0 2px 8px rgba(34,48,42,.18)',
  },
};

const DARK: ThemeConfig = {
  algorithm: antd.darkAlgorithm,
  token: {
    ...SHARED,
    colorPrimary: '#8cc39b',
    colorTextLightSolid: '#10201a',
    colorText: '#e9e4d6',
    colorTextSecondary: '#a9b5ad',
    colorTextPlaceholder: '#93a097',
    colorTextDescription: '#a9b5ad',
    colorBgBase: '#222a26',
    colorBgContainer: '#222a26',
    colorBgElevated: '#2a332e',
    colorBgLayout: '#1a201d',
    colorBorder: '#59655e',
    colorBorderSecondary: '#3c4741',
    colorError: '#f09e90',
    colorWarning: '#e2ab4f',
    colorInfo: '#8fbcdd',
    colorLink: '#8fbcdd',
    colorSuccess: '#8cc39b',
    boxShadowSecondary: '0 2px 8px rgba(0,0,0,.5)',
  },
};

/** The tokens of paper, ink and willow for the component library, by day or by night; where stillness is asked for, nothing moves. */
export const themeOf = (isDark: boolean, isLarge: boolean, isStill: boolean): ThemeConfig => {
  const { token, ...rest } = isDark ? DARK : LIGHT;
  return {
    ...rest,
    token: { ...token, fontSize: isLarge ? 16 : 14, ...(isStill && STILL) },
    components: { Button: { primaryShadow: 'none', defaultShadow: 'none' } },
  };
};
