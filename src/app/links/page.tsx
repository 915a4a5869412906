import type { Metadata } from 'next';
import { lookAtLinks } from '@/desk/views/look-at-layers';
import { LinkShelf } from './link-shelf';

export const dynamic = 'force-dynamic';

export const metadata: Metadata = { title: 'Links' };

export default async function LinksPage() {
  return <LinkShelf first={await lookAtLinks()} />;
}
