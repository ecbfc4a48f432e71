import type { z } from 'zod';
import { StudioShape } from '../core/format/studio';
import { School, schoolById } from '../core/map/schools';
import { StudioTx } from '../data/client';
import type { SingerRow } from '../data/singers';
import { studioSettings, updateStudio } from '../data/studios';
import type { Context } from './context';

export const viewSettings = async ({ tx, as }: Context) => ({ may: as === 'owner', settings: await studioSettings(tx) });

export const changeSettings = ({ tx }: Context, input: z.infer<typeof StudioShape>) => updateStudio(tx, input);

/** The school a singer is taught by: their own, or the studio's. */
export const schoolOf = async (tx: StudioTx, singer: Pick<SingerRow, 'school'>): Promise<School> =>
  schoolById(singer.school ?? (await studioSettings(tx)).school);
