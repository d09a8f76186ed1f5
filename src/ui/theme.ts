export const THEMES = ['light', 'sun', 'dark'] as const;
export type Theme = (typeof THEMES)[number];
export const THEME_COOKIE = 'spiraxis-theme';
export const THEME_NAMES: Readonly<Record<Theme, string>> = {
  light: 'Day',
  sun: 'Direct sun',
  dark: 'Dark shed',
};

export function themeOf(value: string | undefined): Theme {
  return THEMES.find((theme) => theme === value) ?? 'light';
}
