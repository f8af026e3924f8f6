import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { antdTheme } from './antd-theme';
import { ROLES, type ThemeName } from './roles';

const THEMES = Object.keys(ROLES) as ThemeName[];

/** Relative luminance (WCAG 2.2, section on contrast ratio). */
function luminance(hex: string): number {
  const channels = [1, 3, 5].map((at) => {
    const c = parseInt(hex.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * channels[0] + 0.7152 * channels[1] + 0.0722 * channels[2];
}
const contrast = (a: string, b: string): number => {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light + 0.05) / (dark + 0.05);
};

test('contrast: black on white is 21, a colour on itself 1', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 9);
  expect(contrast('#B4561F', '#B4561F')).toBe(1);
});

describe.each(THEMES)('the %s theme', (theme) => {
  const roles = ROLES[theme];

  test.each(['ink', 'soft', 'good', 'bad', 'warn'] as const)(
    '%s can be read on page and panel',
    (role) => {
      for (const ground of [roles.page, roles.panel])
        expect(contrast(roles[role], ground)).toBeGreaterThanOrEqual(4.5);
    },
  );

  test('the accent can be read on page and panel, and words on what it softly fills', () => {
    for (const ground of [roles.page, roles.panel])
      expect(contrast(roles.accent, ground)).toBeGreaterThanOrEqual(4.4);
    expect(contrast(roles.ink, roles.accentSoft)).toBeGreaterThanOrEqual(4.5);
  });

  test('the style sheet says the same as the roles', () => {
    const css = readFileSync(join(__dirname, 'theme.css'), 'utf8');
    for (const [role, colour] of Object.entries(roles)) {
      const property = `--${role.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`;
      const values = [...css.matchAll(new RegExp(`${property}:\\s*(#[0-9a-fA-F]{3,8})`, 'g'))].map(
        (m) => m[1].toUpperCase(),
      );
      expect(values).toContain(colour);
    }
  });

  test('the component library is given it; nothing casts a shadow or moves for long', () => {
    const { token } = antdTheme(theme);
    expect(token).toMatchObject({
      colorPrimary: roles.accent,
      fontFamily: 'var(--face)',
      boxShadow: 'none',
    });
    for (const [name, value] of Object.entries(token ?? {}))
      if (name.startsWith('motionDuration')) expect(parseFloat(String(value))).toBeLessThan(0.15);
  });
});

test('light and dark have the same roles', () =>
  expect(Object.keys(ROLES.dark)).toEqual(Object.keys(ROLES.light)));
