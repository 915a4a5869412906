'use client';

import dynamic from 'next/dynamic';
import { PartBoundary } from '../part-boundary';
import { useArrivals } from './arrivals';

const List = dynamic(() => import('./just-added').then((part) => part.JustAdded));

/** The list of videos that came in together; loaded once there are some. */
export function JustAdded() {
  return useArrivals().added.length > 0 ? (
    <PartBoundary>
      <List />
    </PartBoundary>
  ) : null;
}
