/** The colours of a report’s pictures: the same as the application’s, light and dark. */
export interface Colours {
  sheet: string;
  ink: string;
  second: string;
  line: string;
  band: string;
  accent: string;
  hues: readonly string[];
}

export const LIGHT: Colours = {
  sheet: '#ffffff',
  ink: '#16202b',
  second: '#55636f',
  line: '#cbd3da',
  band: '#e3e9ee',
  accent: '#7e2358',
  hues: ['#0b69a3', '#b4540a', '#0c7a5c', '#8656b0', '#a3234e', '#4f6d12', '#16707a', '#6b5a3a'],
};

export const DARK: Colours = {
  sheet: '#1a222a',
  ink: '#e8edf1',
  second: '#a3b0bb',
  line: '#3a4651',
  band: '#2a343d',
  accent: '#e58fbe',
  hues: ['#6cb6e8', '#f0a063', '#5cc6a4', '#c3a0e6', '#ef8fb0', '#b1cc6a', '#6cc5cf', '#cdb88d'],
};
