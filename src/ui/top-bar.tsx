'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { BringButton } from './bring-button';
import { Mark } from './mark';
import { NoticeBell } from './notice-bell';
import { ThemeSwitch } from './theme-switch';

const PLACES = [
  { href: '/', name: 'Board' },
  { href: '/calendar', name: 'Calendar' },
  { href: '/channels', name: 'Channels' },
  { href: '/series', name: 'Series' },
  { href: '/links', name: 'Links' },
];

/** The bar on top of every place. */
export function TopBar() {
  const path = usePathname();
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-rim border-b-[3px] bg-card px-4 py-2 sm:h-14 sm:gap-x-6 sm:px-7 sm:py-0">
      <Link href="/" className="flex items-center gap-2.5 font-bold font-display text-xl tracking-tight">
        <Mark />
        <span>Kettle Drop</span>
      </Link>
      <nav aria-label="Places" className="flex gap-1 max-sm:order-last max-sm:w-full max-sm:justify-between">
        {PLACES.map(({ href, name }) => {
          const here = href === '/' ? path === '/' : path.startsWith(href);
          const look = here ? 'bg-rim text-card' : 'text-soft hover:bg-sunk hover:text-ink';
          return (
            <Link
              key={href}
              href={href}
              aria-current={here ? 'page' : undefined}
              className={`rounded-full px-2 py-1.5 font-medium sm:px-3 ${look}`}
            >
              {name}
            </Link>
          );
        })}
      </nav>
      <div className="ml-auto flex items-center gap-2">
        <NoticeBell />
        <ThemeSwitch />
        <BringButton />
      </div>
    </header>
  );
}
