import { validate } from 'uuid';
import { PRIVACIES } from '@/core/delivery';
import { BOARD_GROUPS, BOARD_LACKS, BOARD_ORDERS } from '@/core/drop';
import { lookAtBoard, lookAtBoardCounts } from '@/desk/views/look-at-board';
import { Board } from './board/board';
import { type BoardFilter, NO_FILTER } from './board/board-rows';

export const dynamic = 'force-dynamic';

/** The filter that an address asks for; what it asks for that is none is left out. */
function filterIn(query: Record<string, string | string[] | undefined>): BoardFilter {
  const text = (name: string) => [query[name] ?? ''].flat()[0] ?? '';
  const id = (name: string) => (validate(text(name)) ? text(name) : '');
  return {
    find: text('find').slice(0, 300),
    group: BOARD_GROUPS.find((group) => group === text('group')) ?? '',
    seriesId: id('seriesId'),
    channelId: id('channelId'),
    privacy: PRIVACIES.find((privacy) => privacy === text('privacy')) ?? '',
    lacks: BOARD_LACKS.find((lack) => lack === text('lacks')) ?? '',
    days: /^[1-9]\d{0,3}$/.test(text('days')) ? text('days') : '',
    by: id('by'),
    order:
      BOARD_ORDERS.find((order) => order === text('order') && (order !== 'channel' || id('by') !== '')) ??
      NO_FILTER.order,
  };
}

interface BoardPageProps {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function BoardPage({ searchParams }: BoardPageProps) {
  const filter = filterIn(await searchParams);
  const { order, by, ...choice } = filter;
  const asked = Object.fromEntries(Object.entries(choice).filter(([, value]) => value !== ''));
  const [view, counts] = await Promise.all([
    lookAtBoard({ ...asked, order, ...(order === 'channel' ? { by } : {}) }),
    lookAtBoardCounts({ ...asked, group: undefined }),
  ]);
  // Fields that say nothing are left out of the page: of many rows they are a third of it.
  const first = JSON.parse(JSON.stringify({ filter, view, counts })) as Parameters<typeof Board>[0]['first'];
  return <Board first={first} />;
}
