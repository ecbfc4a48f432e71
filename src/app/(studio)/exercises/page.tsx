import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewShelf } from '@/studio/exercises';
import { ExercisesRoom } from '@/ui/exercises/ExercisesRoom';

export const generateMetadata = () => titled(texts('Exercises'));

export default async function Page() {
  return <ExercisesRoom {...await shown(viewShelf)} />;
}
