'use client';

import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';

/** Runs before the page is drawn, so that it never flashes in the other theme. */
export const THEME_SCRIPT = `try{document.documentElement.dataset.theme=localStorage.getItem('theme')??(matchMedia('(prefers-color-scheme: dark)').matches?'dark':'light')}catch{}`;

/** Changes between the light and the dark theme. */
export function ThemeSwitch() {
  const [theme, setTheme] = useState('light');
  useEffect(() => setTheme(document.documentElement.dataset.theme ?? 'light'), []);
  const next = theme === 'dark' ? 'light' : 'dark';
  const change = () => {
    document.documentElement.dataset.theme = next;
    localStorage.setItem('theme', next);
    setTheme(next);
  };
  return (
    <button
      type="button"
      onClick={change}
      aria-label={`Change to the ${next} theme`}
      className="rounded-full p-2 text-soft hover:bg-sunk hover:text-ink"
    >
      {theme === 'dark' ? <Sun size={18} /> : <Moon size={18} />}
    </button>
  );
}
