import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { DeskError } from '@/desk/desk-error';
import { lookAtDrop } from '@/desk/views/look-at-drop';
import { DropPage } from './drop-page';

export const dynamic = 'force-dynamic';

interface PageProps {
  params: Promise<{ id: string }>;
}

async function dropOr404({ params }: PageProps) {
  try {
    return await lookAtDrop((await params).id);
  } catch (error) {
    if (error instanceof DeskError && error.kind === 'not found') notFound();
    throw error;
  }
}

export async function generateMetadata(props: PageProps): Promise<Metadata> {
  const { video, channel } = await dropOr404(props);
  return { title: `${video.title || 'Without a title'} on ${channel.name}` };
}

export default async function OneDrop(props: PageProps) {
  return <DropPage first={await dropOr404(props)} />;
}
