import type { Exercise } from '../exercise/types';
import { dayLater, daysBetween } from './days';
import { fullest, STEP_MINUTES } from './dose';
import { planFor } from './plan';
import { DAYS_A_WEEK, isWork, PlanItem, PlanRequest } from './types';

export const DATE_KINDS = ['recital', 'show', 'audition', 'exam', 'tour', 'holiday', 'rehearsals'] as const;
export type DateKind = (typeof DATE_KINDS)[number];

/** Something in a singer's calendar that practice has to bend to; days as "2026-11-27". */
export interface RoadDate {
  day: string;
  /** The last day of what lasts longer than one. */
  until?: string;
  kind: DateKind;
  name?: string;
}

/** A day of a week that is not like its others. */
export interface RoadDay {
  day: string;
  /** Share of the week's usual minutes. */
  load: number;
  /** Which exercises are sung; null: those of the week. */
  only: string[] | null;
  because: string;
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
  days: RoadDay[];
  /** Why it is as it is, in sentences. */
  because: string[];
}

/** Every fourth week is lighter (common practice, no source). */
const LIGHT_EVERY = 4;
const LIGHT_LOAD = 0.7;
/** A song week goes on with less where a block of rehearsals or a tour asks for the voice. */
const BUSY_LOAD = 0.6;
const HOLIDAY_LOAD = 0.3;
const LISTEN_EVERY = 4;
/** What was changed for another comes back after so many weeks. */
const RESTS_WEEKS = 2;
const SUNG_IN_PUBLIC: readonly DateKind[] = ['recital', 'show', 'audition', 'exam'];
const BUSY: readonly DateKind[] = ['tour', 'rehearsals'];

/** A stretch before a date that is sung in public: so many days before it until so many, what it does to a week, and why. */
interface Countdown {
  from: number;
  until: number;
  load: number;
  /** Nothing new comes in. */
  nothingNew: boolean;
  test: boolean;
  says(name: string): string;
}

/** What the days before a date ask for (common practice, no source). */
const COUNTDOWN: readonly Countdown[] = [
  { from: 42, until: 22, load: 1, nothingNew: true, test: true, says: (name) => `Within six weeks of ${name} no new technique begins.` },
  {
    from: 21,
    until: 15,
    load: 1,
    nothingNew: true,
    test: true,
    says: (name) => `Three weeks to ${name}: run-throughs, and the keys are settled.`,
  },
  { from: 14, until: 8, load: 0.8, nothingNew: true, test: true, says: (name) => `Two weeks to ${name}: four fifths of the load.` },
  { from: 7, until: 0, load: 0.7, nothingNew: true, test: false, says: (name) => `The last week before ${name}: nothing new, no test.` },
];
/** The last days before it, the day itself and the day after. */
const LAST_DAYS = 3;
const LAST_DAYS_LOAD = 0.5;
const SHOW_LOAD = 0.4;
const RECOVERY_LOAD = 0.3;

/** Small sets for days that aren't like the others, by id; what isn't on the shelf is left away. */
const SHOW_SET = ['three-note-warm-up', 'five-note-warm-up', 'straw-slide', 'trill-triad', 'song-line', 'sighing-down'];
const RECOVERY_SET = ['falling-hum', 'three-note-fall', 'straw-slide', 'sighing-down'];
const HOLIDAY_SET = ['three-note-warm-up', 'straw-slide', 'gentle-fifth-glide', 'sighing-down'];

/** Days from a day to the next thing sung in public; null when none is known. */
export function daysToShow(dates: readonly RoadDate[], today: string): number | null {
  const days = dates.filter((d) => SUNG_IN_PUBLIC.includes(d.kind) && d.day >= today).map((d) => daysBetween(today, d.day));
  return days.length ? Math.min(...days) : null;
}

export interface RoadRequest {
  plan: PlanRequest;
  /** The first day of the first week. */
  from: string;
  weeks: number;
  dates: readonly RoadDate[];
}

/**
 * The weeks ahead: each with its phase, aim, items, load and listening, bent to the dates that come. A week changes one work item of the
 * week before; what made room comes back after two weeks; nothing new comes in before something that is sung in public. Deterministic;
 * empty when there is no usable take yet.
 */
export function roadOf({ plan: request, from, weeks, dates }: RoadRequest): RoadWeek[] {
  const first = planFor(request);
  if (!first) return [];
  const phaseOf = phaseByWeek(first.phases, first.phase, weeks);
  const out: RoadWeek[] = [];
  const resting = new Map<string, number>();
  /** The week's items at full load. */
  let full: PlanItem[] = [];
  for (let w = 0; w < weeks; w++) {
    const startsOn = dayLater(from, DAYS_A_WEEK * w);
    const bent = bentTo(startsOn, dates);
    const light = (w + 1) % LIGHT_EVERY === 0;
    const load = Math.min(bent.load, light ? LIGHT_LOAD : 1);
    const before = out[out.length - 1];
    const index = phaseOf[w];
    const phase = first.phases[index];
    const samePhase = before?.phase.id === phase.id;
    if (!before || !bent.nothingNew)
      full = itemsOf({ ...request, phase: index, phaseId: phase.id }, samePhase ? before : undefined, resting, w);
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
      days: daysOf(startsOn, dates, request.shelf),
      because: [
        ...(before && !samePhase
          ? [
              `If the coach agrees that “${before.phase.name}” is over: ${before.phase.name} ends when ${first.phases[phaseOf[w - 1]].until}.`,
            ]
          : []),
        ...bent.because,
        ...(light ? ['Every fourth week is lighter.'] : []),
      ],
    });
  }
  return out;
}

/** Which phase each week belongs to, each lasting as long as is usual; the last goes on. */
function phaseByWeek(phases: readonly { weeks: [number, number] }[], begun: number, weeks: number): number[] {
  const out: number[] = [];
  for (let p = begun; out.length < weeks; p++) {
    const last = p >= phases.length - 1;
    const [least, most] = phases[Math.min(p, phases.length - 1)].weeks;
    const lasts = last ? weeks : Math.round((least + most) / 2);
    for (let i = 0; i < lasts && out.length < weeks; i++) out.push(Math.min(p, phases.length - 1));
  }
  return out;
}

/** What the dates near a week do to it. */
function bentTo(startsOn: string, dates: readonly RoadDate[]) {
  const bent = { load: 1, nothingNew: false, test: true, because: [] as string[] };
  for (const date of dates) {
    const name = date.name || `the ${date.kind}`;
    const last = daysBetween(startsOn, date.until ?? date.day);
    const first = daysBetween(startsOn, date.day);
    const within = first < DAYS_A_WEEK && last >= 0;
    if (SUNG_IN_PUBLIC.includes(date.kind)) {
      const step = COUNTDOWN.find((c) => first <= c.from && first >= c.until);
      if (!step) continue;
      bent.load = Math.min(bent.load, step.load);
      bent.nothingNew ||= step.nothingNew;
      bent.test &&= step.test;
      bent.because.push(step.says(name));
    } else if (within && BUSY.includes(date.kind)) {
      bent.load = Math.min(bent.load, BUSY_LOAD);
      bent.nothingNew = true;
      bent.because.push(`${capital(name)} asks for the voice: three fifths of the load, nothing new.`);
    } else if (within) {
      bent.load = Math.min(bent.load, HOLIDAY_LOAD);
      bent.nothingNew = true;
      bent.test = false;
      bent.because.push(`${capital(name)}: a few minutes to keep the voice moving.`);
    }
  }
  return bent;
}

const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

/** The days of a week that dates make unlike the others. */
function daysOf(startsOn: string, dates: readonly RoadDate[], shelf: readonly Exercise[]): RoadDay[] {
  const there = (ids: readonly string[]) => ids.filter((id) => shelf.some((e) => e.id === id));
  const out: RoadDay[] = [];
  for (let d = 0; d < DAYS_A_WEEK; d++) {
    const day = dayLater(startsOn, d);
    for (const date of dates) {
      const name = date.name || `the ${date.kind}`;
      if (SUNG_IN_PUBLIC.includes(date.kind)) {
        const to = daysBetween(day, date.day);
        if (to === 0) out.push({ day, load: SHOW_LOAD, only: there(SHOW_SET), because: `${capital(name)}: the show set, and no more.` });
        else if (to === -1)
          out.push({
            day,
            load: RECOVERY_LOAD,
            only: there(RECOVERY_SET),
            because: `The day after ${name}: recovery, and silence as needed.`,
          });
        else if (to > 0 && to <= LAST_DAYS)
          out.push({
            day,
            load: LAST_DAYS_LOAD,
            only: null,
            because: `${to === 1 ? 'A day' : `${to} days`} before ${name}: half, and light.`,
          });
      } else if (date.kind === 'holiday' && day >= date.day && day <= (date.until ?? date.day))
        out.push({ day, load: HOLIDAY_LOAD, only: there(HOLIDAY_SET), because: `${capital(name)}.` });
    }
  }
  return out;
}

/** The week's items; against the week before one work item makes room for another, and what rests doesn't come back yet. */
function itemsOf(request: PlanRequest, before: RoadWeek | undefined, resting: ReadonlyMap<string, number>, week: number): PlanItem[] {
  const still = new Set([...resting].flatMap(([id, since]) => (week - since <= RESTS_WEEKS ? [id] : [])));
  const usual = (without: ReadonlySet<string>) =>
    planFor({ ...request, shelf: request.shelf.filter((e) => !without.has(e.id)) })?.items ?? [];
  if (!before) return usual(still);
  const work = before.items.filter(isWork);
  if (work.length < 2) return usual(new Set());
  // The one that was there longest, by turns.
  const goes = work[week % work.length].exerciseId;
  const turned = usual(new Set([...still, goes]));
  // Where nothing else serves, it stays.
  return turned.filter(isWork).length >= work.length ? turned : usual(new Set());
}

/** The same items with less of each. */
const lightened = (items: readonly PlanItem[], by: number): PlanItem[] =>
  items.map((it) => ({ ...it, minutes: Math.max(STEP_MINUTES, Math.floor((it.minutes * by) / STEP_MINUTES) * STEP_MINUTES) }));
