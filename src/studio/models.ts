import { said } from '../core/words/said';
import type { ModelMeta } from '../contract/inputs';
import { z } from 'zod';
import { LONGEST_MODEL_S, MOST_MODELS } from '../core/exercise/model';
import { secondsOf, SoundFileError, wavLayout } from '../core/format/wav';
import { countModels, deleteModel, putModel, soundOfModel } from '../data/models';
import { Refusal } from './refusal';
import { isId } from './ids';
import { mustFindSinger } from './singers';
import type { Context } from './context';

/** Keep a coach's voice on an exercise. @throws Refusal (incomplete) when it is no sound or too long, (conflict) when there are too many. */
export async function saveModel({ tx }: Context, meta: z.infer<typeof ModelMeta>, wav: Buffer): Promise<void> {
  const seconds = lengthOf(wav);
  if (seconds > LONGEST_MODEL_S)
    throw new Refusal(
      'incomplete',
      said('A model is {most} seconds long at most; this one has {seconds}.', {
        most: LONGEST_MODEL_S,
        seconds: Math.round(seconds),
      }),
    );
  if (meta.singerId) await mustFindSinger(tx, meta.singerId);
  if ((await countModels(tx)) >= MOST_MODELS)
    throw new Refusal('conflict', said('A studio keeps {most} models: delete one that is no longer needed first.', { most: MOST_MODELS }));
  await putModel(tx, { ...meta, wav });
}

function lengthOf(wav: Buffer): number {
  try {
    return secondsOf(wavLayout(wav));
  } catch (error) {
    throw error instanceof SoundFileError ? new Refusal('incomplete', error.says) : error;
  }
}

export async function removeModel({ tx }: Context, id: string) {
  if (isId(id)) await deleteModel(tx, id);
}

/** The sound of a model (WAV); on a singer's page those of the studio that are for everybody or for them. @throws Refusal (not-found). */
export async function modelSound({ tx }: Context, id: string, singerId?: string): Promise<Buffer> {
  const found = isId(id) ? await soundOfModel(tx, id) : undefined;
  if (!found || (singerId && found.singerId && found.singerId !== singerId)) throw new Refusal('not-found', 'There is no such model.');
  return found.wav;
}
