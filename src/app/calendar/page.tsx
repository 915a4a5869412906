import type { Metadata } from 'next';
import { Calendar } from './calendar';

export const metadata: Metadata = { title: 'Calendar' };

export default function CalendarPage() {
  return <Calendar />;
}
