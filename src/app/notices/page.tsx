import type { Metadata } from 'next';
import { NoticesPage } from './notices-page';

export const metadata: Metadata = { title: 'Notices' };

export default function Notices() {
  return <NoticesPage />;
}
