import { said, Said } from '../words/said';
import type { Planning } from './check';
import { dayLater } from './days';
import { fullest, STEP_MINUTES } from './dose';
import { dayBent, RoadDate, songsBefore, weekBent, WeekSongs } from './dates';
import { occasionSet } from './occasions';
import { planFor, planFrom, planning, SONG_LINE } from './plan';
import { DAYS_A_WEEK, isWork, Phase, PlanItem, PlanRequest } from './types';

/** A day of a week that is not like its others. */
export interface RoadDay {
  day: string;
  /** Share of the week's usual minutes. */
  load: number;
  /** Which exercises are sung; null: those of the week. */
  only: string[] | null;
  because: Said;
}

export interface RoadWeek {
  /** 1 the first. */
  number: number;
  startsOn: string;
  phase: { id: string; name: string };
  aim: string;
  items: PlanItem[];
  /** Exercises that come in, and that rest, against the week before. */
  comesIn: string[];
  rests: string[];
  /** Share of the agreed minutes. */
  load: number;
  /** Minutes on the fullest day. */
  minutesADay: number;
  /** Whether a lesson should listen to the voice again, and whether the phase's test is sung. */
  listening: boolean;
  test: boolean;
  /** Which songs are sung, and how: those of a date that comes, else the singer's own by turns where the week has a line of a song. */
  songs: WeekSongs[];
  days: RoadDay[];
  /** Why it is as it is, in sentences. */
  because: Said[];
}

/** Every fourth week is lighter (common practice, no source). */
const LIGHT_EVERY = 4;
const LIGHT_LOAD = 0.7;
const LISTEN_EVERY = 4;
/** What was changed for another comes back after so many weeks. */
const RESTS_WEEKS = 2;
export interface RoadRequest {
  plan: PlanRequest;
  /** The first day of the first week. */
  from: string;
  weeks: number;
  dates: readonly RoadDate[];
  /** How many weeks a phase lasts where the coach has said so, by its id. */
  phaseWeeks?: Readonly<Record<string, number>>;
  /** Titles of the singer's songs whose key is chosen. */
  songs?: readonly string[];
}

/** What a week does with a song that no date asks for. */
const A_LINE = said('a line of it, in its key') as string;

/**
 * The weeks ahead: each with its phase, aim, items, load and listening, bent to the dates that come. A week changes one work item of the
 * week before; what made room comes back after two weeks; nothing new comes in before something that is sung in public. Deterministic;
 * empty when there is no usable take yet.
 */
export function roadOf({ plan: request, from, weeks, dates, phaseWeeks = {}, songs = [] }: RoadRequest): RoadWeek[] {
  const p = planning(request);
  if (!p) return [];
  const first = planFrom(p);
  const phaseOf = phaseByWeek(first.phases, first.phase, weeks, phaseWeeks);
  const out: RoadWeek[] = [];
  const resting = new Map<string, number>();
  /** The week's items at full load. */
  let full: PlanItem[] = [];
  for (let w = 0; w < weeks; w++) {
    const startsOn = dayLater(from, DAYS_A_WEEK * w);
    const bent = weekBent(startsOn, dates);
    const light = (w + 1) % LIGHT_EVERY === 0;
    const load = Math.min(bent.load, light ? LIGHT_LOAD : 1);
    const before = out[out.length - 1];
    const index = phaseOf[w];
    const phase = first.phases[index];
    const samePhase = before?.phase.id === phase.id;
    if (!before || !bent.nothingNew)
      full = itemsOf({ ...request, phase: index, phaseId: phase.id }, phase, samePhase ? before : undefined, resting, w);
    const kept = lightened(full, load).filter((it) => bent.test || it.part !== 'test');
    // A test that pauses is nothing new when it comes back.
    const practised = (items: readonly PlanItem[]) => items.filter((it) => it.part !== 'test').map((it) => it.exerciseId);
    const ids = practised(kept);
    const were = practised(before?.items ?? []);
    const rests = were.filter((id) => !ids.includes(id));
    for (const id of rests) resting.set(id, w);
    out.push({
      number: w + 1,
      startsOn,
      phase: { id: phase.id, name: phase.name },
      aim: phase.aim,
      items: kept,
      comesIn: ids.filter((id) => before && !were.includes(id)),
      rests,
      load,
      minutesADay: kept.length ? fullest(kept).day : 0,
      listening: w % LISTEN_EVERY === LISTEN_EVERY - 1 && bent.test,
      test: kept.some((it) => it.part === 'test'),
      songs: songsOf(songsBefore(startsOn, dates), kept, songs, w),
      days: daysOf(startsOn, dates, p),
      because: [
        ...(before && !samePhase
          ? [
              said('If the coach agrees that “{phase}” is over: it ends when {until}.', {
                phase: before.phase.name,
                until: first.phases[phaseOf[w - 1]].until,
              }),
            ]
          : []),
        ...bent.because,
        ...(light ? [said('Every fourth week is lighter.')] : []),
      ],
    });
  }
  return out;
}

/** The songs of a week: what dates ask for, else one of the singer's own, by turns, for the line of a song. */
function songsOf(asked: WeekSongs[], items: readonly PlanItem[], own: readonly string[], week: number): WeekSongs[] {
  if (asked.length > 0 || own.length === 0 || !items.some((it) => it.exerciseId === SONG_LINE)) return asked;
  return [{ titles: [own[week % own.length]], says: A_LINE }];
}

/** A phase lasts no longer than this, weeks. */
export const MOST_PHASE_WEEKS = 26;

/** Which phase each week belongs to, each lasting as long as the coach says or else as is usual; the last goes on. */
function phaseByWeek(
  phases: readonly Pick<Phase, 'id' | 'weeks'>[],
  begun: number,
  weeks: number,
  said: Readonly<Record<string, number>>,
): number[] {
  const out: number[] = [];
  for (let p = begun; out.length < weeks; p++) {
    const last = p >= phases.length - 1;
    const {
      id,
      weeks: [least, most],
    } = phases[Math.min(p, phases.length - 1)];
    const lasts = last ? weeks : (said[id] ?? Math.round((least + most) / 2));
    for (let i = 0; i < lasts && out.length < weeks; i++) out.push(Math.min(p, phases.length - 1));
  }
  return out;
}

/** The days of a week that dates make unlike the others. */
const daysOf = (startsOn: string, dates: readonly RoadDate[], p: Planning): RoadDay[] =>
  Array.from({ length: DAYS_A_WEEK }, (_, d) => dayLater(startsOn, d)).flatMap((day) => {
    const bent = dayBent(day, dates);
    if (!bent) return [];
    const only = bent.set && occasionSet(bent.set, p).map((it) => it.exerciseId);
    return [{ day, load: bent.load, only, because: bent.because }];
  });

/** The week's items; against the week before one work item makes room for another, and what rests doesn't come back yet. */
function itemsOf(
  request: PlanRequest,
  { ends }: Pick<Phase, 'ends'>,
  before: RoadWeek | undefined,
  resting: ReadonlyMap<string, number>,
  week: number,
): PlanItem[] {
  // What ends the phase is sung in all of its weeks.
  const stays = ends.flatMap((gate) => gate.sings);
  const still = new Set([...resting].flatMap(([id, since]) => (week - since <= RESTS_WEEKS && !stays.includes(id) ? [id] : [])));
  const usual = (without: ReadonlySet<string>) =>
    planFor({ ...request, shelf: request.shelf.filter((e) => !without.has(e.id)) })?.items ?? [];
  if (!before) return usual(still);
  const work = before.items.filter(isWork);
  if (work.length < 2) return usual(new Set());
  const may = work.filter((it) => !stays.includes(it.exerciseId));
  if (may.length === 0) return usual(still);
  // The one that was there longest, by turns.
  const turned = usual(new Set([...still, may[week % may.length].exerciseId]));
  // Where nothing else serves, it stays.
  return turned.filter(isWork).length >= work.length ? turned : usual(new Set());
}

/** The same items with less of each. */
const lightened = (items: readonly PlanItem[], by: number): PlanItem[] =>
  items.map((it) => ({ ...it, minutes: Math.max(STEP_MINUTES, Math.floor((it.minutes * by) / STEP_MINUTES) * STEP_MINUTES) }));

/**
 * How long phases last when the one that begins in a week is to begin in another: the phase before it is made longer or shorter. Null
 * where no phase begins there, or none would be left before it.
 *
 * @param begins the week's number in which the phase begins now
 */
export function shifted(
  weeks: readonly Pick<RoadWeek, 'number' | 'phase'>[],
  begins: number,
  to: number,
  phaseWeeks: Readonly<Record<string, number>>,
): Record<string, number> | null {
  const at = weeks.findIndex((w) => w.number === begins);
  const before = weeks[at - 1]?.phase.id;
  if (before === undefined || before === weeks[at].phase.id) return null;
  const first = weeks.find((w) => w.phase.id === before)!.number;
  const lasts = to - first;
  return lasts >= 1 && lasts <= MOST_PHASE_WEEKS ? { ...phaseWeeks, [before]: lasts } : null;
}
