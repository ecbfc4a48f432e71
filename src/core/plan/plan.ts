import { said, Said, texts } from '../words/said';
import { keysFor } from '../exercise/keys';
import { directionOf } from '../exercise/pattern';
import { weightOn } from '../exercise/weight';
import { Exercise, Measure } from '../exercise/types';
import { Finding, FindingName } from '../map/types';
import { setName, strawsForToday } from '../straw/choose';
import { fullest, SET_MINUTES, STEP_MINUTES, weekMinutes, withinDose } from './dose';
import { BY_AGE, CHANGING_SAYS } from './ages';
import { anchorsFor, blocked, Planning, unmet, warms } from './check';
import { saidYes } from './intake';
import { RuleId } from './rules';
import { MINOR_DAY_MINUTES, ruleForToday } from './safety';
import { LeftOut, Part, Plan, PlanItem, PlanRequest, isWork, partRank } from './types';
import { anchorsOf, gradesOf, leaning, NARROW_ST, strongest, URGENCY } from './voice';
import { COMFORT, phasesFor, WAYS } from './ways';

const HELD_BACK_BY: Record<Exclude<FindingName, 'blended'>, string> = texts({
  flip: 'Because your voice leaps around {note}: {purpose}.',
  toggle: 'Because the colour changes at once around {note}: {purpose}.',
  'pulled-chest': 'Because chest is carried too high around {note}: {purpose}.',
  'no-chest': 'Because the low notes have no chest yet below {note}: {purpose}.',
  'weak-first-head': 'Because the first head notes are thin around {note}: {purpose}.',
  'uneven-loudness': 'Because one part jumps out around {note}: {purpose}.',
});

/** What a measure asks for, as the singer reads it; `advances` says how often. */
export const MEASURE_WORDS: Record<Measure, string> = texts({
  'sounds-through': 'it sounds without a break through every key',
  crosses: 'the sound never stops or leaps across the change',
  blends: 'no leap and no sudden change of colour shows',
  holds: 'the notes hold their pitch and don’t fade',
  'in-tune': 'the notes lie within a quarter tone',
  even: 'no note jumps out of the line',
  'softer-up': 'each note is softer than the one below',
});

/** Six days of work and one of rest; the test twice, the song every other day. */
const WORK_DAYS = [0, 1, 2, 3, 4, 5];
const TEST_DAYS = [2, 5];
const CARRY_DAYS = [1, 3, 5];
const DAYS: Record<Part, readonly number[]> = {
  'warm-up': WORK_DAYS,
  'straw-before': WORK_DAYS,
  work: WORK_DAYS,
  counterweight: WORK_DAYS,
  carry: CARRY_DAYS,
  test: TEST_DAYS,
  'straw-after': WORK_DAYS,
};

/** Nothing crosses a change that isn't passed by so much. */
const CROSSES_ST = 3;

/** What goes first when a day is too full. */
const EXPENDABLE: readonly Part[] = ['carry', 'counterweight', 'straw-after', 'test', 'work', 'warm-up', 'straw-before'];

/** Work out what every rule looks at. Null when there is no usable take yet. */
export function planning(request: PlanRequest): Planning | null {
  const placed = anchorsOf(request.map, request.voiceType);
  if (!placed) return null;
  const { anchors } = placed;
  const age = request.age && BY_AGE[request.age];
  const minor = request.minor || Boolean(age?.minor);
  // Nothing is concluded from so small a voice, and a changing one is not trained.
  const narrow = anchors.high - anchors.low < NARROW_ST || Boolean(request.changing) || Boolean(age?.band);
  const working = narrow ? [] : strongest(request.map.findings);
  const lean = leaning(request.map);
  const phases = narrow ? [COMFORT] : phasesFor(request.school, working[0]?.name, { light: lean === 'light', minor });
  const named = phases.findIndex((ph) => ph.id === request.phaseId);
  const byId = new Map(request.shelf.map((e) => [e.id, e]));
  return {
    ...request,
    ...placed,
    minor,
    narrow,
    minutesADay: Math.min(request.minutesADay, age?.mostMinutes ?? (minor ? MINOR_DAY_MINUTES : Infinity)),
    working,
    lean,
    confirmed: request.grades,
    grades: gradesOf(request.grades, working),
    phases,
    phase: named >= 0 ? named : request.phaseId ? 0 : Math.min(Math.max(0, request.phase), phases.length - 1),
    leftItsWay: request.phaseId !== undefined && named < 0,
    limits: saidYes(request.intake).flatMap((q) => q.limit ?? []),
    way: WAYS[request.school],
    find: (id) => byId.get(id),
  };
}

/**
 * A week of practice for a voice: warm-up in stages, a straw or trill, work on what holds the voice back most (two findings at
 * most), a counterweight, the carry-over into a song, the test siren and a straw again; keys from the map, minutes and days
 * within the dose; each with its reason and the rules that decided, and what was left out and why. Null when there is no
 * usable take yet. Deterministic.
 */
export function planFor(request: PlanRequest): Plan | null {
  const p = planning(request);
  return p && planFrom(p);
}

/** The same from a request that is worked out already. */
export function planFrom(p: Planning): Plan {
  // What stays at the change waits until what comes before it is easy; anything else may bring that with it.
  const free = p.shelf.filter((e) => !blocked(e, p) && !(e.place === 'at' && unmet(e, p).length > 0));
  const taken = choose(free, p);
  const items = taken.map(({ e, part, why, serves }) => itemFor(e, part, p, why, serves));
  const dosed = withinDose(inOrder(items, p), p.minutesADay, EXPENDABLE);
  const sung = wholeSets(withSongs(balanced(dosed.items, p), p), p.minutesADay);
  // What gave way for songs and whole sets may have tipped the balance.
  const kept = ledger(wholeSets(balanced(sung, p), p.minutesADay), p);
  const gone = dosed.items.filter((it) => !kept.some((k) => k.exerciseId === it.exerciseId));
  const leftOut: LeftOut[] = [
    ...dosed.dropped.map((it) => ({
      exerciseId: it.exerciseId,
      because: said('No room within {minutes} minutes a day.', { minutes: p.minutesADay }),
      rule: 'dose' as const,
    })),
    ...gone.map((it) => ({
      exerciseId: it.exerciseId,
      because: said('It would take more weight off a light voice than the rest puts back.'),
      rule: 'light-voice' as const,
    })),
    ...p.shelf
      .filter((e) => !taken.some((t) => t.e.id === e.id))
      .map((e) => {
        const block = blocked(e, p);
        const first = unmet(e, p)[0];
        if (block || !first) return { exerciseId: e.id, because: block?.says ?? whyNot(e, p), rule: block?.rule ?? null };
        return { exerciseId: e.id, because: said('“{name}” should be easy first.', { name: first.name }), rule: 'needs-first' as const };
      }),
  ];
  return {
    anchors: p.anchors,
    leftItsWay: p.leftItsWay,
    narrow: p.narrow,
    changeMeasured: p.changeMeasured,
    school: p.school,
    worksOn: p.working.map((f) => f.name),
    phases: p.phases,
    phase: p.phase,
    grades: p.grades,
    items: kept,
    leftOut,
    notes: notesOf(p),
  };
}

interface Taken {
  e: Exercise;
  part: Part;
  why: RuleId[];
  /** The finding it was chosen for, where it isn't the weightiest it suits. */
  serves?: Finding;
}

function choose(free: readonly Exercise[], p: Planning): Taken[] {
  const taken: Taken[] = [];
  const has = (e: Exercise) => taken.some((t) => t.e.id === e.id);
  const best = (part: Part, why: RuleId[], among: (e: Exercise) => boolean, bonus: (e: Exercise) => number = () => 0, serves?: Finding) => {
    const families = new Set(taken.filter((t) => t.part === part).map((t) => t.e.family));
    const worth = (e: Exercise) =>
      score(e, p) + bonus(e) - (families.has(e.family) ? 1 : 0) - 3 * unmet(e, p).filter((b) => !has(b)).length;
    const found = free.filter((e) => among(e) && !has(e)).sort((a, b) => worth(b) - worth(a) || a.grade - b.grade)[0];
    if (found) add(found, part, why, serves);
    return found;
  };
  // A prerequisite that isn't behind the singer comes in just before what needs it, among the work it prepares.
  const add = (e: Exercise, part: Part, why: RuleId[], serves?: Finding) => {
    for (const before of unmet(e, p))
      if (!has(before)) add(before, before.role === 'work' ? 'work' : before.role === 'straw' ? 'straw-before' : part, ['needs-first']);
    if (!has(e)) taken.push({ e, part, why, ...(serves ? { serves } : {}) });
  };

  const short = p.minutesADay <= 10;
  best(
    'warm-up',
    ['warm-first'],
    (e) => e.role === 'warm-up' && e.grade === 1,
    (e) => Math.min(FEW_KEYS, keysFor(e, anchorsFor(e, p)).length),
  );
  if (!short) best('warm-up', ['warm-first'], (e) => e.role === 'warm-up' && e.grade > 1);
  // A straw where there is one, otherwise a trill or a hum.
  best(
    'straw-before',
    ['straw-around'],
    (e) => e.role === 'straw',
    (e) => (e.needs.includes('straw') ? 2 : 0),
  );

  const main = p.working[0]?.name;
  const second = p.working[1];
  const phase = p.phases[p.phase];
  const forMain = short ? 1 : p.minutesADay > 20 ? 3 : 2;
  // What the phase is for comes first, whatever finding it serves; then what holds the voice back.
  const ofPhase = (e: Exercise) => e.role === 'work' && phase.likes.includes(e.id) && mayJoin(e, taken, p);
  const forFinding = (e: Exercise) => e.role === 'work' && (!main || e.suits.includes(main)) && mayJoin(e, taken, p);
  for (let i = 0; i < forMain; i++) if (i % 2 || !best('work', ['phase'], ofPhase)) best('work', ['finding', 'phase'], forFinding);
  // Each thing that is worked on has an item at its own place in the voice.
  if (second)
    best(
      'work',
      ['finding'],
      (e) => e.role === 'work' && e.suits.includes(second.name) && mayJoin(e, taken, p) && keysFor(e, anchorsFor(e, p, second)).length > 0,
      undefined,
      second,
    );
  if (!short) counterweight(taken, p, best);
  if (p.minutesADay > 10 && !p.narrow) best('carry', ['into-song'], (e) => e.id === SONG_LINE);
  best('test', ['test-last'], (e) => e.role === 'test' && testsPhase(e, p));
  best(
    'straw-after',
    ['straw-around'],
    (e) => e.role === 'straw' || e.role === 'cool-down',
    (e) => (e.role === 'cool-down' ? COOLS : e.loudness === 'soft' ? 1 : 0),
  );
  return taken;
}

/** What cools goes before any straw at the end of a set. */
const COOLS = 10;

/** A warm-up wants a few keys to walk through; more of them are no better. */
const FEW_KEYS = 3;

/** The line of a song: what is carried over is one the coach names. */
export const SONG_LINE = 'song-line';

/** A test on the phase's own sound: “ah”, the hardest to cross on, only when crossing is at grade 4 (common practice, no source). */
const testsPhase = (e: Exercise, p: Planning): boolean =>
  (e.sounds[0] === 'ah') === (p.grades.crossing >= 4 && !p.minor && p.phases[p.phase].id !== 'release');

/** A voice that is light takes at most one weight-removing exercise; one that pushes gets weight only after letting go. */
function mayJoin(e: Exercise, taken: readonly Taken[], p: Planning): boolean {
  const work = taken.filter((t) => t.part === 'work');
  if (p.lean === 'light' && e.weight < 0) return !work.some((t) => t.e.weight < 0);
  if (p.lean === 'pushes' && e.weight > 0) return work.some((t) => t.e.weight < 0) && !work.some((t) => t.e.weight > 0);
  return true;
}

/** One exercise that weighs against the work, when the work leans further than suits the voice. */
function counterweight(
  taken: readonly Taken[],
  p: Planning,
  best: (part: Part, why: RuleId[], among: (e: Exercise) => boolean) => Exercise | undefined,
): void {
  const sum = taken.filter((t) => t.part === 'work').reduce((s, t) => s + t.e.weight, 0);
  const wanted = p.lean === 'light' ? 1 : p.lean === 'balanced' ? 0 : -1;
  const off = sum - wanted;
  if (Math.abs(off) < (p.lean === 'balanced' ? 2 : 1)) return;
  const weight = off > 0 ? -1 : 1;
  // Never further toward what the voice has too much of.
  if ((weight < 0 && p.lean === 'light') || (weight > 0 && wanted < 0)) return;
  best('counterweight', ['balance'], (e) => e.role === 'work' && e.weight === weight && mayJoin(e, taken, p));
}

/** How well an exercise serves this voice now. */
function score(e: Exercise, p: Planning): number {
  const serves = p.working.reduce((sum, f, i) => sum + (e.suits.includes(f.name) ? URGENCY[f.name] / (i + 1) : 0), 0);
  const phase = p.phases[p.phase];
  const timely =
    (phase.likes.includes(e.id) ? 3 : 0) +
    (phase.ends.some((gate) => gate.sings.includes(e.id)) ? 3 : 0) +
    (phase.strands.includes(e.strand) ? 1 : 0) +
    (phase.weight === e.weight ? 0.5 : 0);
  const taught =
    (p.way.likes.includes(e.id) ? 2 : 0) +
    (p.way.strands.includes(e.strand) ? 0.5 : 0) +
    (p.way.sounds.some((s) => e.sounds.slice(0, 2).includes(s)) ? 0.25 : 0);
  // The next rung is where learning is.
  const rung = e.role === 'work' ? 0.4 * Math.abs(e.grade - p.grades[e.strand] - 1) : 0.3 * e.grade;
  return serves + timely + taught - rung;
}

/** By part; within work light before full, falling before rising, easy before hard; and what must come before, before. */
function inOrder(items: readonly PlanItem[], p: Planning): PlanItem[] {
  const rising = (e: Exercise) => (e.family === 'siren' && directionOf(e) === 'up' ? 1 : 0);
  const e = (it: PlanItem) => p.find(it.exerciseId)!;
  const sorted = [...items].sort(
    (a, b) =>
      partRank(a) - partRank(b) || (isWork(a) ? e(a).weight - e(b).weight || rising(e(a)) - rising(e(b)) : 0) || e(a).grade - e(b).grade,
  );
  const out: PlanItem[] = [];
  const put = (it: PlanItem) => {
    if (out.includes(it)) return;
    for (const id of e(it).after) {
      const before = sorted.find((s) => s.exerciseId === id);
      // What is sung later for its own sake isn't moved forward.
      if (before && partRank(before) <= partRank(it)) put(before);
    }
    out.push(it);
  };
  sorted.forEach(put);
  return out;
}

/** What takes weight off: by its pattern, or by the sound it is sung on. */
const removes = (it: PlanItem, p: Planning): boolean => {
  const e = p.find(it.exerciseId)!;
  return e.weight < 0 || weightOn(e, it.sound) < 0;
};
const minutesOf = (items: readonly PlanItem[]): number => items.reduce((sum, it) => sum + weekMinutes(it), 0);

/** For a light voice: work that takes weight off is sung less often, or not, until it is no more than half of the work. */
function balanced(items: readonly PlanItem[], p: Planning): PlanItem[] {
  if (p.lean !== 'light') return [...items];
  let out = items.map((it) => ({ ...it }));
  for (;;) {
    const work = out.filter(isWork);
    const removing = work.filter((it) => removes(it, p));
    if (removing.length === 0 || minutesOf(removing) <= minutesOf(work) / 2) return out;
    const last = removing[removing.length - 1];
    if (last.timesADay > 1) last.timesADay--;
    else out = out.filter((it) => it !== last);
  }
}

/** For a light voice the straws and trills around the work count as well: shorter, then less often, until half of the week is no lighter. */
function ledger(items: readonly PlanItem[], p: Planning): PlanItem[] {
  const out = items.map((it) => ({ ...it }));
  if (p.lean !== 'light') return out;
  while (minutesOf(out.filter((it) => removes(it, p))) > minutesOf(out) / 2) {
    const around = out.filter((it) => removes(it, p) && !isWork(it)).sort((a, b) => weekMinutes(b) - weekMinutes(a));
    const long = around.find((it) => it.minutes > STEP_MINUTES);
    // What ends every set is sung in every set.
    const often = around.find((it) => it.timesADay > 1 && it !== out[out.length - 1]);
    if (long) long.minutes -= STEP_MINUTES;
    else if (often) often.timesADay--;
    else break;
  }
  return out;
}

/** A line of a song takes this long a time at most. */
const MOST_SONG_MINUTES = 5;
const MOST_SONG_TIMES = 3;

/** Songs take their phase's share of the week: longer at a time, then more often, and the rest gives way. */
function withSongs(items: readonly PlanItem[], p: Planning): PlanItem[] {
  const share = p.phases[p.phase].carryShare;
  const out = items.map((it) => ({ ...it }));
  const song = out.find((it) => it.part === 'carry');
  if (!song) return out;
  song.days = [...WORK_DAYS];
  const grown = (more: Partial<PlanItem>) => fits({ ...song, ...more }, song, out, p.minutesADay);
  // What is sung for the work itself, least of it last.
  const gives = () => out.filter((it) => it !== song && it.part !== 'test').sort((a, b) => weekMinutes(b) - weekMinutes(a));
  while (weekMinutes(song) < share * minutesOf(out)) {
    const often = gives().find((it) => it.timesADay > 1);
    const long = gives().find((it) => it.minutes > 2 * STEP_MINUTES);
    if (song.minutes < MOST_SONG_MINUTES && grown({ minutes: song.minutes + STEP_MINUTES })) song.minutes += STEP_MINUTES;
    else if (song.timesADay < MOST_SONG_TIMES && grown({ timesADay: song.timesADay + 1 })) song.timesADay++;
    else if (often) often.timesADay--;
    else if (long) long.minutes -= STEP_MINUTES;
    else break;
  }
  return out;
}

const fits = (now: PlanItem, was: PlanItem, items: readonly PlanItem[], minutesADay: number): boolean => {
  const dose = fullest(items.map((it) => (it === was ? now : it)));
  return dose.set <= SET_MINUTES && dose.day <= minutesADay;
};

/**
 * Every set of a day begins warm and ends cool: the warm-up and the last item are sung as often as anything else, at least half a
 * minute; the work is sung less often until all of it fits the day.
 */
function wholeSets(items: readonly PlanItem[], minutesADay: number): PlanItem[] {
  const out = items.map((it) => ({ ...it }));
  const warm = out.find(({ part }) => part === 'warm-up') ?? out.find(warms);
  const cool = [...out].reverse().find(({ part }) => part === 'straw-after');
  const ends = [warm, cool].filter((it) => it !== undefined);
  const rest = out.filter((it) => !ends.includes(it));
  for (;;) {
    const sets = Math.max(1, ...rest.map((it) => it.timesADay));
    for (const it of ends) {
      it.timesADay = sets;
      it.days = [...new Set(rest.flatMap((r) => r.days))].sort((a, b) => a - b);
      if (it.days.length === 0) it.days = [...WORK_DAYS];
    }
    const { day, set } = fullest(out);
    if (day <= minutesADay && set <= SET_MINUTES) return out;
    const long = ends.filter((it) => it.minutes > STEP_MINUTES).sort((a, b) => b.minutes - a.minutes)[0];
    const often = rest.filter((it) => it.timesADay === sets && sets > 1);
    if (long) long.minutes -= STEP_MINUTES;
    else if (often.length) often.forEach((it) => it.timesADay--);
    else return out;
  }
}

/** An exercise as an assignment in this voice: the singer's keys, sound, dose and days, and why. */
export function itemFor(e: Exercise, part: Part, p: Planning, why: RuleId[], serves?: Finding): PlanItem {
  const suited = serves ?? p.working.find((f) => e.suits.includes(f.name));
  const sound = soundFor(e, p);
  const liked = p.way.likes.includes(e.id) || (sound !== e.sounds[0] && p.way.sounds.includes(sound));
  const straws = e.needs.includes('straw') ? strawsForToday(p.straws, p.grades.straw - 1) : null;
  return {
    exerciseId: e.id,
    part,
    keys: keysFor(e, anchorsFor(e, p, suited)),
    sound,
    ...(straws ? { straws: setName(straws) } : {}),
    ...paced(e, part, p),
    timesADay: part === 'test' || part === 'carry' ? 1 : e.timesADay,
    days: [...DAYS[part]],
    reason: reasonFor(e, part, suited, p),
    caution: e.caution,
    rules: [...new Set<RuleId>([...why, 'voice', ...(liked ? (['school'] as const) : []), 'dose'])],
    advance: advanceOf(e, part, sound, p),
  };
}

/** Its tempo and minutes at this age. */
function paced(e: Exercise, part: Part, { age }: Planning): Pick<PlanItem, 'tempo' | 'minutes'> {
  const { pace = 1, warmUp = 1 } = (age && BY_AGE[age]) || {};
  return {
    tempo: Math.max(e.tempo[0], Math.round(e.tempo[1] * pace)),
    minutes: Math.ceil((e.minutes * (part === 'warm-up' ? warmUp : 1)) / STEP_MINUTES) * STEP_MINUTES,
  };
}

const LEANS: Record<Planning['lean'], string> = texts({
  light: 'Because your voice is light already, for balance: {purpose}.',
  balanced: 'Because the rest of the set leans the other way, for balance: {purpose}.',
  heavy: 'Because chest outweighs head in your voice now, for balance: {purpose}.',
  pushes: 'Because your voice tends to push, for balance: {purpose}.',
});

/** The easiest sound, or its neighbour where the school prefers that. */
function soundFor(e: Exercise, p: Planning): string {
  return e.sounds.slice(0, 2).find((s) => p.way.sounds.includes(s)) ?? e.sounds[0];
}

function advanceOf(e: Exercise, part: Part, sound: string, p: Planning): Said {
  if (part === 'test') return said('This phase is over when {until}; your coach has the last word.', { until: p.phases[p.phase].until });
  const measure = MEASURE_WORDS[e.measure];
  const next = e.sounds[e.sounds.indexOf(sound) + 1];
  return next
    ? said('When {measure} in four takes of five, easily, on three days, go on to “{next}”.', { measure, next })
    : said('When {measure} in four takes of five, easily, on three days, go on to the next grade.', { measure });
}

function reasonFor(e: Exercise, part: Part, suited: Finding | undefined, p: Planning): Said {
  const { purpose } = e;
  if (part === 'counterweight') return said(LEANS[p.lean], { purpose });
  // That a voice blends is no reason for work; what the exercise is for is.
  if (!suited || suited.name === 'blended' || part !== 'work') return said('Because {purpose}.', { purpose });
  return said(HELD_BACK_BY[suited.name], { note: { note: suited.midi }, purpose });
}

/** Why an exercise that would be allowed isn't in this week. */
function whyNot(e: Exercise, p: Planning): Said {
  const suited = p.working.find((f) => e.suits.includes(f.name));
  if (suited) return said('It serves the same end; kept for when the chosen ones are easy.');
  if (e.role !== 'work') return said('Another one stands in its place this week.');
  return p.working.length ? said('It works on something else than what holds the voice back.') : said('The set is full.');
}

function notesOf(p: Planning): Said[] {
  const unwell = ruleForToday(p.today);
  const age = p.age && BY_AGE[p.age].says;
  return [
    ...(unwell ? [unwell.says, said('The week is planned as for days that are well.')] : []),
    ...saidYes(p.intake).map((q) => q.says),
    ...(p.changing
      ? [CHANGING_SAYS]
      : age
        ? [age]
        : p.minor
          ? [said('A young voice: no range pushing, nothing loud, and a listening again within a few weeks.')]
          : []),
    ...(p.leftItsWay
      ? [said('The map now asks for another way than the phase that was begun: choose a phase anew, or stay where you are.')]
      : []),
    ...(p.narrow && !p.changing && !(p.age && BY_AGE[p.age].band)
      ? [
          said('Under {semitones} semitones were heard: no finding is worked on until more of the voice is known.', {
            semitones: NARROW_ST,
          }),
        ]
      : []),
    ...(!p.narrow && !p.changeMeasured && p.anchors.high < p.anchors.change + CROSSES_ST
      ? [said('Not yet heard above {note}: look for head voice from above before anything crosses.', { note: { note: p.anchors.high } })]
      : []),
    ...(p.lean === 'light'
      ? [said('A light voice: what takes weight off is used sparingly, and heavy songs are the easiest way to harm it.')]
      : []),
    ...(p.lean === 'pushes' && p.phase === 0 ? [said('For these weeks nothing that adds weight; loud songs wait if they can.')] : []),
    p.narrow || (p.phase === 0 && p.phases.length > 1)
      ? said('Success in this phase: {until}.', { until: p.phases[0].until })
      : said('Success here: {success}.', { success: p.way.success }),
  ];
}
