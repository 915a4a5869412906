'use client';

import { useQuery } from '@tanstack/react-query';
import { Bell } from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { ask } from './ask';
import { useBrowserNotices } from './browser-notices';

/** Leads to the notices, with how many nobody has seen. */
export function NoticeBell() {
  const here = usePathname().startsWith('/notices');
  const { data } = useQuery({
    queryKey: ['notice count'],
    queryFn: () => ask<{ unseen: number; browser: boolean }>('/api/notices/count'),
  });
  useBrowserNotices(data?.browser === true);
  const unseen = data?.unseen ?? 0;
  const many = unseen >= 100 ? '99+' : String(unseen);
  return (
    <Link
      href="/notices"
      aria-current={here ? 'page' : undefined}
      aria-label={unseen > 0 ? `Notices, ${many} new` : 'Notices'}
      className={`relative rounded-full p-2 ${here ? 'bg-rim text-card' : 'text-soft hover:bg-sunk hover:text-ink'}`}
    >
      <Bell size={18} aria-hidden />
      {unseen > 0 && (
        <span
          aria-hidden
          className="absolute -top-0.5 -right-1 min-w-[18px] rounded-full bg-snag px-1 text-center font-semibold text-[11px] text-card leading-[18px]"
        >
          {many}
        </span>
      )}
    </Link>
  );
}
