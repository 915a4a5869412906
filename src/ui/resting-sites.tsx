'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { RestingSiteView } from '@/desk/site/resting-sites';
import { ask } from './ask';
import { Button } from './button';
import { Moment } from './moment';
import { useNotices } from './notices';

/** Says which sites do not answer, since when, and when they are tried next. */
export function RestingSites() {
  const { data = [] } = useQuery({ queryKey: ['sites'], queryFn: () => ask<RestingSiteView[]>('/api/sites') });
  const client = useQueryClient();
  const { trouble } = useNotices();
  const tryNow = async ({ id }: RestingSiteView) => {
    try {
      await ask(`/api/sites/${id}/try`, { method: 'POST' });
      await client.invalidateQueries({ queryKey: ['sites'] });
    } catch (error) {
      trouble(error);
    }
  };
  return data.map((site) => (
    <div
      key={site.id}
      role="status"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 bg-held-wash px-7 py-1.5 text-sm"
    >
      <p className="min-w-0 flex-1">
        <b className="text-held">
          {site.name} has had trouble since <Moment at={site.since} short />.
        </b>{' '}
        Nothing is lost; what is meant for it goes on by itself. Next try: <Moment at={site.nextTryAt} short />.
        {site.says && <span className="text-soft"> It said: “{site.says}”.</span>}
      </p>
      <Button look="plain" onClick={() => tryNow(site)}>
        Try {site.name} now
      </Button>
    </div>
  ));
}
