import { ExerciseShape } from '@/core/format/exercise';
import { removeExercise, saveExercise } from '@/server/exercises';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ exerciseId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    saveExercise(ExerciseShape.parse({ ...((await jsonOf(request)) as object), id: (await params).exerciseId })),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeExercise((await params).exerciseId));
}
