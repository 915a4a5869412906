import type { Metadata } from 'next';
import { lookAtChannels } from '@/desk/views/look';
import { Channels } from './channels';

export const dynamic = 'force-dynamic';

export const metadata: Metadata = { title: 'Channels' };

interface PageProps {
  searchParams: Promise<{ connected?: string; trouble?: string; insteadOf?: string }>;
}

export default async function ChannelsPage({ searchParams }: PageProps) {
  const { connected, trouble, insteadOf } = await searchParams;
  return <Channels first={await lookAtChannels()} connected={connected} trouble={trouble} insteadOf={insteadOf} />;
}
