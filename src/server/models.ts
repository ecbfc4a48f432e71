import { z } from 'zod';
import { LONGEST_MODEL_S, MANNERS, MOST_MODELS } from '../core/exercise/model';
import { secondsOf, SoundFileError, wavLayout } from '../core/format/wav';
import type { StudioTx } from '../data/client';
import { countModels, deleteModel, putModel, soundOfModel } from '../data/models';
import { asSinger } from './links';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { inPresentStudio } from './studio';

export const ModelMeta = z.object({
  id: z.uuid(),
  exerciseId: z.string().min(1).max(60),
  manner: z.enum(MANNERS),
  singerId: z.uuid().nullable().default(null),
});

/** Keep a coach's voice on an exercise. @throws Problem (400) when it is no sound or too long, (409) when there are too many. */
export async function saveModel(meta: z.infer<typeof ModelMeta>, wav: Buffer): Promise<void> {
  const seconds = lengthOf(wav);
  if (seconds > LONGEST_MODEL_S)
    throw new Problem(`A model is ${LONGEST_MODEL_S} seconds long at most; this one has ${Math.round(seconds)}.`, 400);
  await inPresentStudio(async (tx) => {
    if (meta.singerId) await mustFindSinger(tx, meta.singerId);
    if ((await countModels(tx)) >= MOST_MODELS)
      throw new Problem(`A studio keeps ${MOST_MODELS} models: delete one that is no longer needed first.`, 409);
    await putModel(tx, { ...meta, wav });
  });
}

function lengthOf(wav: Buffer): number {
  try {
    return secondsOf(wavLayout(wav));
  } catch (error) {
    throw error instanceof SoundFileError ? new Problem(error.message, 400) : error;
  }
}

export const removeModel = (id: string) =>
  inPresentStudio(async (tx) => {
    if (z.uuid().safeParse(id).success) await deleteModel(tx, id);
  });

async function soundIn(tx: StudioTx, id: string, singerId?: string): Promise<Response> {
  const found = z.uuid().safeParse(id).success ? await soundOfModel(tx, id) : undefined;
  if (!found || (singerId && found.singerId && found.singerId !== singerId)) throw new Problem('There is no such model.', 404);
  return new Response(new Uint8Array(found.wav), { headers: { 'content-type': 'audio/wav', 'content-length': String(found.wav.length) } });
}

export const modelSound = (id: string) => inPresentStudio((tx) => soundIn(tx, id));

/** A model on the singer's page: of the studio's, those for everybody and for this singer. */
export const modelForSinger = (token: string, id: string) => asSinger(token, (tx, singerId) => soundIn(tx, id, singerId));
