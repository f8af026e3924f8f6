import { theme, type ThemeConfig } from 'antd';
import { ROLES, type ThemeName } from './roles';

/** The component library dressed in the look: paper, ink, hairlines, one accent, no shadows. */
export function antdTheme(name: ThemeName): ThemeConfig {
  const c = ROLES[name];
  return {
    algorithm: name === 'dark' ? theme.darkAlgorithm : theme.defaultAlgorithm,
    cssVar: { key: `reed-${name}` },
    token: {
      colorPrimary: c.accent,
      colorInfo: c.accent,
      colorLink: c.accent,
      colorSuccess: c.good,
      colorError: c.bad,
      colorWarning: c.warn,
      colorText: c.ink,
      colorTextSecondary: c.soft,
      colorTextTertiary: c.soft,
      colorTextPlaceholder: c.soft,
      colorTextDescription: c.soft,
      colorBgBase: c.panel,
      colorBgContainer: c.panel,
      colorBgElevated: c.panel,
      colorBgLayout: c.page,
      colorBorder: c.hairline,
      colorBorderSecondary: c.hairline,
      colorSplit: c.hairline,
      colorPrimaryBg: c.accentSoft,
      controlItemBgActive: c.accentSoft,
      controlItemBgHover: c.page,
      fontFamily: 'var(--face)',
      fontFamilyCode: 'var(--mono)',
      fontSize: 13,
      borderRadius: 6,
      borderRadiusLG: 8,
      borderRadiusSM: 4,
      controlHeight: 28,
      controlHeightSM: 24,
      boxShadow: 'none',
      boxShadowSecondary: `0 0 0 1px ${c.hairline}`,
      boxShadowTertiary: 'none',
      motionDurationFast: '0.06s',
      motionDurationMid: '0.1s',
      motionDurationSlow: '0.14s',
      wireframe: false,
    },
    components: {
      Button: {
        primaryShadow: 'none',
        defaultShadow: 'none',
        dangerShadow: 'none',
        fontWeight: 500,
        primaryColor: name === 'dark' ? '#1F1309' : '#FFFFFF',
      },
      Modal: { titleFontSize: 16, contentBg: c.panel, headerBg: c.panel },
      Segmented: { trackBg: c.page, itemSelectedBg: c.panel },
      Popover: { titleMinWidth: 0 },
      Tooltip: { colorBgSpotlight: c.ink, colorTextLightSolid: c.panel },
    },
  };
}
