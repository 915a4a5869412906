'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { ArrivalsProvider } from './arrivals/arrivals';
import { useFloating } from './floating/use-floating';
import { NoticesProvider } from './notices';
import { ConflictsProvider } from './saving/conflicts';
import { LeaveGuard } from './saving/leave-guard';
import { SureProvider } from './sure';

function TipsWhenLoaded() {
  const floating = useFloating();
  return floating ? <floating.Tips /> : null;
}

/** What every page stands in. */
export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { staleTime: 10_000, retry: 2, refetchOnWindowFocus: true } } }),
  );
  return (
    <QueryClientProvider client={client}>
      <NoticesProvider>
        <TipsWhenLoaded />
        <ConflictsProvider>
          <LeaveGuard />
          <SureProvider>
            <ArrivalsProvider>{children}</ArrivalsProvider>
          </SureProvider>
        </ConflictsProvider>
      </NoticesProvider>
    </QueryClientProvider>
  );
}
