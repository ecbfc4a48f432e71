// Passes of the studio's own singers, heard blind: what coaches hear in them beside what the machine hears.
import { BLEND_ST } from '../map/passaggi';
import type { SchoolId } from '../map/schools';
import type { CrossingName, Passaggio } from '../map/types';
import { median } from '../signal/stats';
import { Change, changesOf } from '../take/changes';
import type { Direction, Leg, Range, TakeFindings } from '../take/types';
import { Agreement, agreement } from './agreement';

/** One way of a slide, to be heard by itself. */
export interface Pass {
  takeId: string;
  startS: number;
  endS: number;
  direction: Direction;
}

/** What can be said of a pass: how the voice changes in it, or that nothing changes. */
export const PASS_NAMES = ['flip', 'toggle', 'blended', 'none'] as const satisfies readonly (CrossingName | 'none')[];
export type PassName = (typeof PASS_NAMES)[number];

/** A word on a pass; `midi` is the last note before the change, null where it isn't placed. */
export interface PassWord {
  name: PassName;
  midi: number | null;
}

/** A coach's word on a pass, beside the machine's. */
export interface Said {
  pass: Pass;
  coachId: string;
  /** Milliseconds since 1970. */
  saidAt: number;
  word: PassWord;
  machine: PassWord;
  /** By which whoever sings is taught. */
  school: SchoolId;
}

/** A pass as it is asked about: how far it goes, and nothing else. */
export interface AskedPass extends Pass, Range {}

/** A pass that can be asked about, with what the machine says of it. */
export interface Candidate extends AskedPass {
  machine: PassWord;
}

/** A pass that is asked about goes this far and lasts no longer: a change needs room, and an ear forgets (this house's). */
const LEAST_ST = 9;
const LONGEST_S = 15;
/** A pass is asked of the same coach again after this long, to see whether they agree with themselves: they no longer know it. */
export const AGAIN_MS = 28 * 86_400_000;

const NAME_OF: Record<Change['kind'], CrossingName> = { flip: 'flip', crack: 'flip', dip: 'toggle', timbre: 'toggle', blend: 'blended' };

const overlapS = (a: Pick<Pass, 'startS' | 'endS'>, b: Pick<Pass, 'startS' | 'endS'>) =>
  Math.min(a.endS, b.endS) - Math.max(a.startS, b.startS);

/** The leg that a pass is, in findings that may be newer than it. */
function legOf(legs: readonly Leg[], pass: Pass): number {
  const shared = legs.map((leg) => (leg.direction === pass.direction ? overlapS(leg, pass) : 0));
  const most = Math.max(0, ...shared);
  return most > 0 ? shared.indexOf(most) : -1;
}

/**
 * What the machine hears in a pass: the surest change of its leg, or the blend that it finds only in several passes taken together and
 * that this one is among.
 */
export function machineOn(pass: Pass, findings: TakeFindings, passaggi: readonly Passaggio[]): PassWord {
  const leg = legOf(findings.legs, pass);
  const changes = changesOf(findings).filter((change) => leg >= 0 && change.leg === leg);
  if (changes.length > 0) {
    const { kind, widthSt, midi } = changes.reduce((a, b) => (b.confidence > a.confidence ? b : a));
    return { name: kind === 'blend' && widthSt < BLEND_ST ? 'toggle' : NAME_OF[kind], midi };
  }
  const pooled = passaggi.flatMap((p) => p.votes).find((v) => v.source === 'machine' && v.takeId === pass.takeId && v.leg === leg);
  return pooled ? { name: 'blended', midi: pooled.midi } : { name: 'none', midi: null };
}

/** The passes of a take that can be asked about: slides alone, where nothing but the voice changes. */
export function candidatesOf(takeId: string, findings: TakeFindings, passaggi: readonly Passaggio[]): Candidate[] {
  if (findings.task !== 'siren' || !findings.quality.usable) return [];
  return findings.legs
    .filter((leg) => leg.highestMidi - leg.lowestMidi >= LEAST_ST && leg.endS - leg.startS <= LONGEST_S)
    .map(({ startS, endS, direction, lowestMidi, highestMidi }) => {
      const pass = { takeId, startS, endS, direction };
      return { ...pass, lowestMidi, highestMidi, machine: machineOn(pass, findings, passaggi) };
    });
}

/** Two times of one and the same pass; an engine that hears anew may cut it a little differently. */
export const isSamePass = (a: Pass, b: Pass) =>
  a.takeId === b.takeId && a.direction === b.direction && overlapS(a, b) > 0.5 * Math.min(a.endS - a.startS, b.endS - b.startS);

/** What others have answered comes up so much more often, and what this coach answered long ago: else nobody could be compared. */
const OTHERS_FAVOUR = 3;
const AGAIN_FAVOUR = 3;

/**
 * Draw passes to ask a coach about, not two of one take in one draw, and as many in which the machine hears nothing as in which it hears
 * something, as far as there are: who says always the same is right by chance only.
 *
 * @param random 0 up to 1, as `Math.random`.
 */
export function drawPasses(
  candidates: readonly Candidate[],
  said: readonly Said[],
  { coachId, now, n, random }: { coachId: string; now: number; n: number; random: () => number },
): Candidate[] {
  const open = candidates.flatMap((candidate) => {
    const of = said.filter((s) => isSamePass(s.pass, candidate));
    const own = of.filter((s) => s.coachId === coachId);
    if (own.some((s) => now - s.saidAt < AGAIN_MS)) return [];
    const favour = (own.length > 0 ? AGAIN_FAVOUR : 1) * (of.length > own.length ? OTHERS_FAVOUR : 1);
    // The larger of n draws of u^(1/w): one pass over all of them (Efraimidis and Spirakis 2006).
    return { candidate, key: random() ** (1 / favour) };
  });
  const ordered = open.sort((a, b) => b.key - a.key).map(({ candidate }) => candidate);
  const once = ordered.filter((c, i) => ordered.findIndex((o) => o.takeId === c.takeId) === i);
  const [silent, changing] = [true, false].map((is) => once.filter((c) => (c.machine.name === 'none') === is));
  const drawn: Candidate[] = [];
  while (drawn.length < n && silent.length + changing.length > 0) {
    const from = changing.length === 0 || (silent.length > 0 && random() < 0.5) ? silent : changing;
    drawn.push(from.shift()!);
  }
  return drawn;
}

/** How two listeners compare: what they name, and how far apart they place what both heard. */
export interface Compared {
  names: Agreement;
  /** Pairs that both placed, and the middle distance between them, semitones; null: none. */
  placed: { n: number; apartSt: number } | null;
}

/** @returns null where there is no pair. */
function compared(pairs: readonly (readonly [PassWord, PassWord])[]): Compared | null {
  const names = agreement(
    pairs.map(([a]) => a.name),
    pairs.map(([, b]) => b.name),
  );
  if (!names) return null;
  const apart = pairs.flatMap(([a, b]) => (a.midi === null || b.midi === null ? [] : [Math.abs(a.midi - b.midi)]));
  return { names, placed: apart.length > 0 ? { n: apart.length, apartSt: median(apart) } : null };
}

/** How a coach's ears compare: with the machine, with the studio's other coaches, with their own of at least four weeks before. */
export interface Ears {
  machine: Compared | null;
  others: Compared | null;
  self: Compared | null;
  /** Of passes in which the machine hears a change of a kind, or none: how often this coach hears a change, and names it alike. */
  byName: Partial<Record<PassName, { asked: number; there: number; alike: number }>>;
  /** With the machine, apart for singers of each school, those with most passes first. */
  bySchool: { school: SchoolId; machine: Compared }[];
}

const inOrder = (said: readonly Said[]) => [...said].sort((a, b) => a.saidAt - b.saidAt);
/** The last word on each pass of each coach. */
function lastWords(said: readonly Said[]): Said[] {
  const last = new Map<string, Said[]>();
  for (const s of inOrder(said)) {
    const near = `${s.coachId} ${s.pass.takeId}`;
    last.set(near, [...(last.get(near) ?? []).filter((before) => !isSamePass(before.pass, s.pass)), s]);
  }
  return [...last.values()].flat();
}

/** @see Ears */
export function earsOf(said: readonly Said[], coachId: string): Ears {
  const last = lastWords(said);
  const own = last.filter((s) => s.coachId === coachId);
  const others = last.filter((s) => s.coachId !== coachId);
  const all = inOrder(said.filter((s) => s.coachId === coachId));
  const byName: Ears['byName'] = {};
  for (const { word, machine } of own) {
    const of = (byName[machine.name] ??= { asked: 0, there: 0, alike: 0 });
    of.asked++;
    if (word.name !== 'none') of.there++;
    if (word.name === machine.name) of.alike++;
  }
  const withMachine = (of: readonly Said[]) => compared(of.map((s) => [s.word, s.machine]));
  return {
    machine: withMachine(own),
    others: compared(own.flatMap((s) => others.filter((o) => isSamePass(o.pass, s.pass)).map((o) => [s.word, o.word] as const))),
    self: compared(
      own.flatMap((s) => {
        const before = all.find((b) => s.saidAt - b.saidAt >= AGAIN_MS && isSamePass(b.pass, s.pass));
        return before ? [[before.word, s.word] as const] : [];
      }),
    ),
    byName,
    bySchool: [...new Set(own.map((s) => s.school))]
      .map((school) => ({ school, machine: withMachine(own.filter((s) => s.school === school))! }))
      .sort((a, b) => b.machine.names.n - a.machine.names.n),
  };
}
