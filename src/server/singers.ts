import { z } from 'zod';
import { Intake, SingerShape } from '../core/format/singer';
import { fittingCategories } from '../core/map/categories';
import { changeNames } from '../core/map/schools';
import { PIN_NAMES, PinName } from '../core/map/types';
import { familyOf, voiceType } from '../core/plan/voice-types';
import { StudioTx } from '../data/client';
import { removePin, setPin } from '../data/maps';
import { mapOf, poolNow } from '../data/pooling';
import { archiveSinger, awaitsConsent, deleteSinger, findSinger, insertSinger, updateSinger } from '../data/singers';
import { takeLinesOfSinger } from '../data/takes';
import { Problem } from './problem';
import { schoolOf } from './settings';
import { inPresentStudio } from './studio';

export const addSinger = (input: z.infer<typeof SingerShape>) => inPresentStudio((tx) => insertSinger(tx, input));

export const editSinger = (id: string, input: z.infer<typeof SingerShape>) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await updateSinger(tx, id, input);
  });

export const setArchived = (id: string, archived: boolean) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await archiveSinger(tx, id, archived);
  });

/** For good, with every take, mark, lesson and assignment. The name must be given, so that no slip of a finger does it. */
export const removeSinger = (id: string, name: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    if (name.trim() !== singer.name) throw new Problem(`Nothing was deleted: type the name ${singer.name} exactly to delete for good.`);
    await deleteSinger(tx, id);
  });

/** The map as it stood at a time: what had been sung until then (the marks are today's). */
export const mapAsOf = (id: string, until: Date) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    return poolNow(tx, id, until.getTime());
  });

export const PinInput = z.object({ what: z.enum(PIN_NAMES), midi: z.number().min(24).max(100).nullable() });

/** Pin a value of the map, or take the pin out (null). */
export const pinValue = (id: string, { what, midi }: { what: PinName; midi: number | null }) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await (midi === null ? removePin(tx, id, what) : setPin(tx, id, what, midi));
  });

/** The singer. @throws Problem (404) when there is none. */
export async function mustFindSinger(tx: StudioTx, id: string) {
  const singer = z.uuid().safeParse(id).success ? await findSinger(tx, id) : undefined;
  if (singer) tx.saw.add(id);
  if (!singer) throw new Problem('There is no such singer in this studio.', 404);
  return singer;
}

/** What stands over every view of a singer. @throws Problem (404). */
export const viewFrame = (id: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    return { singer, awaitsConsent: awaitsConsent(singer.intake) };
  });

/** Categories are for grown voices, and for coaches who want them. */
const showsCategories = (intake: Intake | null) => !(intake?.minor || intake?.changing || intake?.noCategories);

/** A singer with map and takes. @throws Problem (404) when there is none. */
export async function viewSinger(id: string) {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    const map = await mapOf(tx, id);
    const takes = await takeLinesOfSinger(tx, id);
    const school = await schoolOf(tx, singer);
    return {
      singer,
      map,
      school: {
        name: school.name,
        changes: changeNames(
          school,
          map.passaggi.map((p) => p.midi),
          voiceType(singer.voiceType),
        ),
        categories: showsCategories(singer.intake) ? fittingCategories(map, school, familyOf(singer.voiceType)) : [],
      },
      takes: takes.map(({ quality, error, analysed, ...t }) => ({
        ...t,
        usable: analysed ? (quality?.usable ?? false) : null,
        reasons: quality?.reasons ?? (error ? [error] : []),
      })),
    };
  });
}
