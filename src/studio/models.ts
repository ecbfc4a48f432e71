import type { Id } from '../core/format/id';
import { said } from '../core/words/said';
import type { ModelMeta } from '../contract/inputs';
import { z } from 'zod';
import { MOST_MODELS } from '../core/exercise/model';
import { countModels, deleteModel, putModel, soundOfModel } from '../data/models';
import { Refusal } from './refusal';
import { mustBeShort } from './short-sound';
import { mustFindSinger } from './singers';
import type { Context } from './context';

/** Keep a coach's voice on an exercise. @throws Refusal (incomplete) when it is no sound or too long, (conflict) when there are too many. */
export async function saveModel({ tx }: Context, meta: z.infer<typeof ModelMeta>, wav: Buffer): Promise<void> {
  mustBeShort(wav);
  if (meta.singerId) await mustFindSinger(tx, meta.singerId);
  if ((await countModels(tx)) >= MOST_MODELS)
    throw new Refusal('conflict', said('A studio keeps {most} models: delete one that is no longer needed first.', { most: MOST_MODELS }));
  await putModel(tx, { ...meta, wav });
}

export const removeModel = ({ tx }: Context, id: Id<'model'>) => deleteModel(tx, id);

/** The sound of a model (WAV); on a singer's page those of the studio that are for everybody or for them. @throws Refusal (not-found). */
export async function modelSound({ tx }: Context, id: Id<'model'>, singerId?: Id<'singer'>): Promise<Buffer> {
  const found = await soundOfModel(tx, id);
  if (!found || (singerId && found.singerId && found.singerId !== singerId)) throw new Refusal('not-found', 'There is no such model.');
  return found.wav;
}
