import { z } from 'zod';
import { SHELF } from '../core/exercise/shelf';
import type { Exercise } from '../core/exercise/types';
import { StudioTx } from '../data/client';
import { modelsFor } from '../data/models';
import { deleteExercise, ownExercises, putExercise } from '../data/exercises';
import { inPresentStudio } from './studio';

/** Ours and the studio's own. */
export const wholeShelf = async (tx: StudioTx): Promise<Exercise[]> => [...SHELF, ...(await ownExercises(tx))];

export const viewShelf = () => inPresentStudio(async (tx) => ({ own: await ownExercises(tx), models: await modelsFor(tx, null) }));

export const saveExercise = (input: Exercise) => inPresentStudio((tx) => putExercise(tx, input));

/** Take an exercise of one's own off the shelf; what was assigned keeps it. */
export const removeExercise = (id: string) =>
  inPresentStudio(async (tx) => {
    if (z.uuid().safeParse(id).success) await deleteExercise(tx, id);
  });
