import type { Exercise } from '../core/exercise/types';
import { modelsFor } from '../data/models';
import { deleteExercise, ownExercises, putExercise } from '../data/exercises';
import type { Context } from './context';

export const viewShelf = async ({ tx }: Context) => ({ own: await ownExercises(tx), models: await modelsFor(tx, null) });

export const saveExercise = ({ tx }: Context, input: Exercise) => putExercise(tx, input);

/** Take an exercise of one's own off the shelf; what was assigned keeps it. */
export const removeExercise = ({ tx }: Context, id: string) => deleteExercise(tx, id);
