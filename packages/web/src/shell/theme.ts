// Day or dusk: kept in the browser, and set on the document before anything is drawn (see public/theme.js).
import { useCallback, useState } from 'react';

export type Theme = 'day' | 'dusk';

const now = (): Theme => (document.documentElement.dataset.theme === 'dusk' ? 'dusk' : 'day');

/** Turns to the other theme. @returns the one that is shown now */
export function turnTheme(): Theme {
  const next = now() === 'day' ? 'dusk' : 'day';
  document.documentElement.dataset.theme = next;
  localStorage.setItem('theme', next);
  return next;
}

export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState(now);
  return [theme, useCallback(() => setTheme(turnTheme()), [])];
}
