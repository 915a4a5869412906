import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { DeskError } from '@/desk/desk-error';
import { lookAtMarkers } from '@/desk/views/look';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { Sheet } from './sheet/sheet';

export const dynamic = 'force-dynamic';

interface PageProps {
  params: Promise<{ id: string }>;
}

async function sheetOr404({ params }: PageProps) {
  try {
    return await lookAtSheet((await params).id);
  } catch (error) {
    if (error instanceof DeskError && error.kind === 'not found') notFound();
    throw error;
  }
}

export async function generateMetadata(props: PageProps): Promise<Metadata> {
  return { title: (await sheetOr404(props)).title || 'Without a title' };
}

export default async function SheetPage(props: PageProps) {
  const sheet = await sheetOr404(props);
  return <Sheet first={sheet} firstMarkers={await lookAtMarkers(sheet.id)} />;
}
