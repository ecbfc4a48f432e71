import { SHELF } from '@/core/exercise/shelf';
import { Shelf } from '@/ui/plan/Shelf';

export const metadata = { title: 'Exercises' };

export default function Page() {
  return <Shelf exercises={SHELF} />;
}
