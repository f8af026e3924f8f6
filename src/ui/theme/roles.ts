/**
 * The look's roles of colour, for light and dark. `theme.css` holds the same values as custom
 * properties; the component library takes them from here.
 */
export const ROLES = {
  light: {
    page: '#F6F3EC',
    panel: '#FFFFFF',
    ink: '#22303A',
    soft: '#5A6670',
    hairline: '#DDD6C8',
    accent: '#B4561F',
    accentSoft: '#F1E3D8',
    good: '#1D6B5F',
    bad: '#A8281E',
    warn: '#8A6100',
  },
  dark: {
    page: '#171D22',
    panel: '#1F272D',
    ink: '#E9E4D8',
    soft: '#A9B1B5',
    hairline: '#3A444B',
    accent: '#E58A4E',
    accentSoft: '#3A2C22',
    good: '#6CC0B0',
    bad: '#F08A7E',
    warn: '#DDB45A',
  },
} as const;

export type ThemeName = keyof typeof ROLES;
