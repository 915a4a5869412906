'use client';

import { useQuery } from '@tanstack/react-query';
import type { NoticeSettings, NoticeWay } from '@/core/notices';
import type { NoticeSettingsView } from '@/desk/views/look-at-notices';
import { ask } from '@/ui/ask';
import { useNotices } from '@/ui/notices';
import { useActs } from '@/ui/saving/use-acts';

const CONCERNS = ['notice settings'] as const;
const AT = '/api/notices/settings';

/** How a manager is told, and what can be set about it. Each change is kept at once. */
export function useNoticeSettings() {
  const { data } = useQuery({ queryKey: CONCERNS, queryFn: () => ask<NoticeSettingsView>(AT) });
  const { act } = useActs(CONCERNS);
  const { say } = useNotices();
  /** @param set what changes, by section and field */
  const put = (set: { [K in keyof NoticeSettings]?: Partial<NoticeSettings[K]> }, password?: string) =>
    act(AT, { method: 'PATCH', json: { set, password } });
  return {
    view: data,
    put,
    async tryWay(way: NoticeWay) {
      if (await act('/api/notices/trial', { method: 'POST', json: { way } }))
        say('The trial was sent. Look whether it came.');
    },
    renewSecret: () => act('/api/notices/secret', { method: 'POST' }),
  };
}

export type NoticeSettingsHandle = ReturnType<typeof useNoticeSettings>;
