import type { Metadata } from 'next';
import { layerOr404 } from '@/app/layer-or-404';
import { SeriesPage } from './series-page';

export const dynamic = 'force-dynamic';

interface PageProps {
  params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: PageProps): Promise<Metadata> {
  return { title: (await layerOr404('series', (await params).id)).name };
}

export default async function Page({ params }: PageProps) {
  return <SeriesPage first={await layerOr404('series', (await params).id)} />;
}
