import type { Metadata } from 'next';
import { lookAtFileSets } from '@/desk/defaults/file-sets';
import { lookAtSeriesList } from '@/desk/views/look-at-layers';
import { SeriesList } from './series-list';

export const dynamic = 'force-dynamic';

export const metadata: Metadata = { title: 'Series' };

export default async function SeriesListPage() {
  const [series, files] = await Promise.all([lookAtSeriesList(), lookAtFileSets()]);
  return <SeriesList first={series} files={files} />;
}
