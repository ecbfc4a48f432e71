import { found } from '@/server/found';
import { viewShelf } from '@/server/exercises';
import { ExercisesRoom } from '@/ui/exercises/ExercisesRoom';

export const metadata = { title: 'Exercises' };

export default async function Page() {
  return <ExercisesRoom {...await found(viewShelf())} />;
}
