'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { BringButton } from './bring-button';
import { Mark } from './mark';
import { ThemeSwitch } from './theme-switch';

const PLACES = [
  { href: '/', name: 'Board' },
  { href: '/channels', name: 'Channels' },
];

/** The bar on top of every place. */
export function TopBar() {
  const path = usePathname();
  return (
    <header className="flex h-14 items-center gap-3 border-rim border-b-[3px] bg-card px-4 sm:gap-6 sm:px-7">
      <Link href="/" className="flex items-center gap-2.5 font-bold font-display text-xl tracking-tight">
        <Mark />
        <span className="max-sm:sr-only">Kettle Drop</span>
      </Link>
      <nav aria-label="Places" className="flex gap-1">
        {PLACES.map(({ href, name }) => {
          const here = href === '/' ? path === '/' : path.startsWith(href);
          const look = here ? 'bg-rim text-card' : 'text-soft hover:bg-sunk hover:text-ink';
          return (
            <Link
              key={href}
              href={href}
              aria-current={here ? 'page' : undefined}
              className={`rounded-full px-3 py-1.5 font-medium ${look}`}
            >
              {name}
            </Link>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-2">
        <ThemeSwitch />
        <BringButton />
      </div>
    </header>
  );
}
