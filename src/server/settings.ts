import { z } from 'zod';
import { School, schoolById, SCHOOL_IDS } from '../core/map/schools';
import { StudioTx } from '../data/client';
import type { SingerRow } from '../data/singers';
import { studioSettings, updateStudio } from '../data/studios';
import { inPresentStudio, mustBe } from './studio';

export const SettingsInput = z.object({
  name: z.string().trim().min(1, 'Give the studio a name.').max(120),
  school: z.enum(SCHOOL_IDS),
  keepMonths: z.number().int().min(1).max(120).nullable(),
});

export const viewSettings = async () => ({
  may: (await mustBe('reader')).role === 'owner',
  settings: await inPresentStudio(studioSettings),
});

export const changeSettings = (input: z.infer<typeof SettingsInput>) => inPresentStudio((tx) => updateStudio(tx, input));

/** The school a singer is taught by: their own, or the studio's. */
export const schoolOf = async (tx: StudioTx, singer: Pick<SingerRow, 'school'>): Promise<School> =>
  schoolById(singer.school ?? (await studioSettings(tx)).school);
