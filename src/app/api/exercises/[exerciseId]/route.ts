import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { removeExercise, saveExercise } from '@/studio/exercises';

export const PUT = handle('PUT /api/exercises/[exerciseId]', ({ body }) => inPresentStudio(saveExercise, body));
export const DELETE = handle('DELETE /api/exercises/[exerciseId]', ({ params }) => inPresentStudio(removeExercise, params.exerciseId));
