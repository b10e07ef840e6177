import type { ThemeConfig } from 'antd';

/** The colours of the design; CSS variables of the same names are set from them. */
const colours = {
  table: '#ECE7DC',
  sheet: '#FBF9F4',
  paper: '#FFFFFF',
  ink: '#22302C',
  soft: '#59655E',
  rule: '#D9D2C3',
  fir: '#1E5B4B',
  firTint: '#DCE9E2',
  straw: '#C58A14',
  strawInk: '#7F5400',
  strawTint: '#F7EBCB',
  clay: '#A83E22',
  clayTint: '#F6E1D8',
  plum: '#7A3E8E',
  selection: '#BBD9CC',
} as const;

export const cssVariables = Object.fromEntries(
  Object.entries(colours).map(([k, v]) => [`--${k.replace(/[A-Z]/g, (c) => '-' + c.toLowerCase())}`, v]),
);

const FONT = "'Instrument Sans Variable', system-ui, sans-serif";

/** Ant Design in the application's own dress. */
export const theme: ThemeConfig = {
  token: {
    fontFamily: FONT,
    fontSize: 13,
    colorPrimary: colours.fir,
    colorInfo: colours.fir,
    colorLink: colours.fir,
    colorLinkHover: colours.fir,
    colorText: colours.ink,
    colorTextSecondary: colours.soft,
    colorTextPlaceholder: colours.soft,
    colorBorder: colours.rule,
    colorBorderSecondary: colours.rule,
    colorBgContainer: colours.paper,
    colorBgElevated: colours.sheet,
    colorError: colours.clay,
    colorWarning: colours.straw,
    colorSuccess: colours.fir,
    borderRadius: 4,
    motionDurationMid: '0.14s',
    motionDurationSlow: '0.18s',
    wireframe: false,
    boxShadow: 'none',
    boxShadowSecondary: '0 6px 24px #22302c22',
  },
  components: {
    Button: {
      borderRadius: 18,
      fontWeight: 600,
      primaryShadow: 'none',
      defaultShadow: 'none',
      defaultColor: colours.fir,
      defaultBorderColor: colours.fir,
    },
    Select: { optionSelectedBg: colours.firTint },
    Input: { activeShadow: 'none' },
    Segmented: { itemSelectedBg: colours.fir, itemSelectedColor: '#fff', trackBg: colours.paper },
  },
};
