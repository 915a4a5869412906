import { lookAtBoard } from '@/desk/look/look';
import { Board } from './board/board';

export const dynamic = 'force-dynamic';

export default async function BoardPage() {
  return <Board first={await lookAtBoard()} />;
}
