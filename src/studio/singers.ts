import type { Id } from '../core/format/id';
import { said } from '../core/words/said';
import type { OtherTake, SingerRecord } from '../contract/answers';
import { z } from 'zod';
import { Intake, SingerShape } from '../core/format/singer';
import { fittingCategories } from '../core/map/categories';
import { changeNames } from '../core/map/schools';
import { PinName } from '../core/map/types';
import { familyOf, voiceType } from '../core/plan/voice-types';
import { StudioTx } from '../data/client';
import { removePin, setPin } from '../data/maps';
import { mapOf, poolNow } from './pooling';
import { archiveSinger, awaitsConsent, deleteSinger, findSinger, insertSinger, singerNames, updateSinger } from '../data/singers';
import { takeLinesOfSinger } from '../data/takes';
import { Refusal } from './refusal';
import { schoolOf } from './settings';
import type { Context } from './context';

export const addSinger = ({ tx }: Context, input: z.infer<typeof SingerShape>) => insertSinger(tx, input);

/** What is entered of a singer, to be changed. */
export async function singerRecord({ tx }: Context, id: Id<'singer'>): Promise<SingerRecord> {
  const { name, part, voiceType, note, email, intake, school, archivedAt } = await mustFindSinger(tx, id);
  return { id, name, part, voiceType, note, email, intake, school, archived: archivedAt !== null };
}

export async function editSinger({ tx }: Context, id: Id<'singer'>, input: z.infer<typeof SingerShape>) {
  await mustFindSinger(tx, id);
  await updateSinger(tx, id, input);
}

export async function setArchived({ tx }: Context, id: Id<'singer'>, archived: boolean) {
  await mustFindSinger(tx, id);
  await archiveSinger(tx, id, archived);
}

/** @throws Refusal (conflict) where a singer may not be recorded yet. */
export function mustAgreeToRecording({ name, intake }: { name: string; intake: Intake | null }): void {
  if (awaitsConsent(intake))
    throw new Refusal(
      'conflict',
      said(
        '{name} is a minor, and no guardian’s consent to recording is noted: note it in the singer’s record, then send the take again.',
        { name: { own: name } },
      ),
    );
}

/** For good, with every take, mark, lesson and assignment. The name must be given, so that no slip of a finger does it. */
export async function removeSinger({ tx }: Context, id: Id<'singer'>, name: string) {
  const singer = await mustFindSinger(tx, id);
  if (name.trim() !== singer.name)
    throw new Refusal(
      'incomplete',
      said('Nothing was deleted: type the name {name} exactly to delete for good.', { name: { own: singer.name } }),
    );
  await deleteSinger(tx, id);
}

/** The map as it stood at a time: what had been sung until then (the marks are today's). */
export async function mapAsOf({ tx }: Context, id: Id<'singer'>, until: Date) {
  await mustFindSinger(tx, id);
  return poolNow(tx, id, until.getTime());
}

/** Pin a value of the map, or take the pin out (null). */
export async function pinValue({ tx }: Context, id: Id<'singer'>, { what, midi }: { what: PinName; midi: number | null }) {
  await mustFindSinger(tx, id);
  await (midi === null ? removePin(tx, id, what) : setPin(tx, id, what, midi));
}

/** A singer's takes that can be heard beside another's: usable, and their sound is there. */
export async function takesToCompare({ tx }: Context, id: Id<'singer'>): Promise<OtherTake[]> {
  await mustFindSinger(tx, id);
  return (await takeLinesOfSinger(tx, id)).flatMap(({ id: takeId, task, recordedAt, quality, soundRemovedAt }) =>
    quality?.usable && !soundRemovedAt ? [{ id: takeId, task, recordedAt }] : [],
  );
}

/** Whom a take can be set beside. */
export const viewNames = ({ tx }: Context) => singerNames(tx);

/** The singer. @throws Refusal (not-found) when there is none. */
export async function mustFindSinger(tx: StudioTx, id: Id<'singer'>) {
  const singer = await findSinger(tx, id);
  if (singer) tx.saw.add(id);
  if (!singer) throw new Refusal('not-found', 'There is no such singer in this studio.');
  return singer;
}

/** What stands over every view of a singer. @throws Refusal (not-found). */
export async function viewFrame({ tx }: Context, id: Id<'singer'>) {
  const singer = await mustFindSinger(tx, id);
  return { singer, awaitsConsent: awaitsConsent(singer.intake) };
}

/** Categories are for grown voices, and for coaches who want them. */
const showsCategories = (intake: Intake | null) => !(intake?.minor || intake?.changing || intake?.noCategories);

/** A singer with map and takes. @throws Refusal (not-found) when there is none. */
export async function viewSinger({ tx }: Context, id: Id<'singer'>) {
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
}
