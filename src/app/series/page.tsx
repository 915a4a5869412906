import type { Metadata } from 'next';
import { lookAtSeriesList } from '@/desk/look/look-at-layers';
import { SeriesList } from './series-list';

export const dynamic = 'force-dynamic';

export const metadata: Metadata = { title: 'Series' };

export default async function SeriesListPage() {
  return <SeriesList first={await lookAtSeriesList()} />;
}
