import { shown } from '@/server/found';
import { viewShelf } from '@/studio/exercises';
import { ExercisesRoom } from '@/ui/exercises/ExercisesRoom';

export const metadata = { title: 'Exercises' };

export default async function Page() {
  return <ExercisesRoom {...await shown(viewShelf)} />;
}
