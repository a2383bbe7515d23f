import type { ThemeConfig } from 'antd';

/** The tokens of paper, ink and willow for the component library. */
export const theme: ThemeConfig = {
  token: {
    colorPrimary: '#3c6a4b',
    colorText: '#22302a',
    colorTextSecondary: '#566560',
    colorTextPlaceholder: '#6a7871',
    colorBgBase: '#fffdf8',
    colorBgLayout: '#f5f1e8',
    colorBorder: '#bdb49f',
    colorBorderSecondary: '#d8d0bf',
    colorError: '#9e3328',
    colorWarning: '#8f5b00',
    colorInfo: '#2f5d7c',
    colorLink: '#2f5d7c',
    colorSuccess: '#3c6a4b',
    borderRadius: 3,
    borderRadiusLG: 3,
    borderRadiusSM: 2,
    fontFamily: 'var(--sans)',
    fontSize: 14,
    controlHeight: 30,
    boxShadow: 'none',
    boxShadowSecondary: '0 2px 8px rgba(34,48,42,.18)',
    motionDurationMid: '0.08s',
    motionDurationSlow: '0.12s',
  },
  components: { Button: { primaryShadow: 'none', defaultShadow: 'none' } },
};
