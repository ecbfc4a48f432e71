import { weightedMedian } from '../signal/stats';
import { Direction, Leg } from '../take/types';
import { blendVotes } from './blends';
import { isEnough, LEAST_PASSES } from './enough';
import { recencyOf } from './recency';
import { Count, CrossingName, Passaggio, TakeEvidence, Vote } from './types';
import { vowelsAt } from './vowels';
import { isSlide, passesBy } from './zone';

/** Two changes of one direction nearer than this are one (bridges lie a fourth to a fifth apart; common practice). */
const APART_ST = 4;
const KERNEL_ST = 1.3;
/** Coming down the change lies lower than going up, usually by so much, at most by so much (common practice: a semitone or two, up to 5 or 6). */
const USUAL_HYSTERESIS_ST = 1.5;
const MOST_HYSTERESIS_ST = 6.5;
const LEAST_HYSTERESIS_ST = -2;
/** Weaker words are not counted. */
const LEAST_WEIGHT = 0.1;
/** A change is one when so large a share of the passes speaks for it, and so many votes in all. */
const LEAST_SHARE = 0.25;
const LEAST_SUPPORT = 0.5;
/** A blend nobody hears is said from this confidence on: under it colour has turned for other reasons as often (tuned on others' voices). */
const LEAST_BLENDED = 0.3;
/** How far a voice's change strays from take to take, before its own takes say otherwise (tuned on simulated singers), and for how many takes that counts. */
const USUAL_SCATTER_ST = 0.7;
const USUAL_TAKES = 3;
/** 95 % point of a normal deviate: the interval holds nine in ten. */
const NINE_IN_TEN = 1.645;
/** What placing adds, however many takes there are: the tracker's blur and the last steady pitch's own breadth; more for wide blends. */
const PLACING_ST = 0.3;
const PLACING_OF_WIDTH = 0.12;

/** A leg of a slide, or a rise or fall over the notes of a scale. */
type RecentLeg = Leg & { recency: number; takeId: string; slid: boolean };

/** What describing a cluster looks at. */
interface Heard {
  takes: TakeEvidence[];
  legs: RecentLeg[];
  recency: Map<string, number>;
  slid: Set<string>;
}

/** Pool every leg's word into passaggi: how many there are and where, by evidence. */
export function poolPassaggi(takes: TakeEvidence[], all: Vote[]): Passaggio[] {
  const recency = new Map(takes.map((t) => [t.takeId, recencyOf(t, takes)]));
  const slid = new Set(takes.filter((t) => isSlide(t.findings)).map((t) => t.takeId));
  const legs = takes.flatMap(({ takeId, findings }) =>
    findings.legs.map((leg) => ({ ...leg, takeId, recency: recency.get(takeId)!, slid: slid.has(takeId) })),
  );
  const of: Heard = { takes, legs, recency, slid };
  const votes = all.filter((v) => v.weight > LEAST_WEIGHT && (v.kind !== 'blend' || v.source !== 'machine'));
  const heard = describeAll(votes, of);
  const blended = blendVotes(takes, heard, recency);
  return (blended.length ? describeAll([...votes, ...blended], of) : heard).sort((a, b) => a.midi - b.midi);
}

function describeAll(votes: Vote[], of: Heard): Passaggio[] {
  const [ups, downs] = (['up', 'down'] as const).map((d) => clusters(votes.filter((v) => v.direction === d)));
  return paired(ups, downs)
    .map((cluster) => describe(cluster, of))
    .filter((p): p is Passaggio => p !== null);
}

/** Group votes of one direction around the peaks of their weighted density, peaks at least APART_ST apart. */
function clusters(votes: Vote[]): Vote[][] {
  if (votes.length === 0) return [];
  const density = (m: number) => votes.reduce((s, v) => s + v.weight * Math.exp(-0.5 * ((v.midi - m) / KERNEL_ST) ** 2), 0);
  const low = Math.min(...votes.map((v) => v.midi)) - 1;
  const high = Math.max(...votes.map((v) => v.midi)) + 1;
  const peaks: { at: number; height: number }[] = [];
  for (let m = low; m <= high; m += 0.25) {
    const h = density(m);
    if (h >= density(m - 0.25) && h > density(m + 0.25)) peaks.push({ at: m, height: h });
  }
  peaks.sort((a, b) => b.height - a.height);
  const centres: number[] = [];
  for (const p of peaks) if (centres.every((c) => Math.abs(c - p.at) >= APART_ST)) centres.push(p.at);
  return centres.map((c) =>
    votes.filter((v) => Math.abs(v.midi - c) <= APART_ST && centres.every((o) => Math.abs(o - v.midi) >= Math.abs(c - v.midi))),
  );
}

/**
 * What is heard going up and what is heard coming down belong to one passaggio when the second lies at most
 * MOST_HYSTERESIS_ST lower: the likeliest pairs first, each once; what finds no partner stands alone.
 */
function paired(ups: Vote[][], downs: Vote[][]): Vote[][] {
  const pairs = ups.flatMap((up, u) =>
    downs.map((down, d) => {
      const hysteresis = centreOf(up)! - centreOf(down)!;
      return { u, d, hysteresis, cost: Math.abs(hysteresis - USUAL_HYSTERESIS_ST) };
    }),
  );
  const out: Vote[][] = [];
  const [usedUps, usedDowns] = [new Set<number>(), new Set<number>()];
  for (const { u, d, hysteresis } of pairs.sort((a, b) => a.cost - b.cost)) {
    if (hysteresis < LEAST_HYSTERESIS_ST || hysteresis > MOST_HYSTERESIS_ST || usedUps.has(u) || usedDowns.has(d)) continue;
    usedUps.add(u);
    usedDowns.add(d);
    out.push([...ups[u], ...downs[d]]);
  }
  return [...out, ...ups.filter((_, u) => !usedUps.has(u)), ...downs.filter((_, d) => !usedDowns.has(d))];
}

/** Place, interval, direction and counts of one cluster; null when too few legs speak for it. */
function describe(votes: Vote[], { takes, legs, recency, slid }: Heard): Passaggio | null {
  const [up, down] = (['up', 'down'] as const).map((d) => centreOf(votes.filter((v) => v.direction === d)));
  const at = (direction: Direction) => (direction === 'up' ? (up ?? down)! : (down ?? up)!);
  const passing = legs.filter((l) => passesBy(l, at(l.direction)));
  // Like is compared with like: what slides tell is not made less by scales that heard nothing, nor the other way round.
  const [ofSlides, ofScales] = [true, false].map((slide) =>
    shareOf(
      votes.filter((v) => slid.has(v.takeId) === slide),
      passing.filter((l) => l.slid === slide),
      recency,
    ),
  );
  const { support, share } = [ofSlides, ofScales, shareOf(votes, passing, recency)].reduce((a, b) => (b.share > a.share ? b : a));
  const byCoach = votes.some((v) => v.source === 'coach');
  // One take proves nothing where there are more.
  const alone = votes.every((v) => v.source === 'machine') && new Set(votes.map((v) => v.takeId)).size < 2 && recency.size > 2;
  if (!byCoach && (alone || support < LEAST_SUPPORT || share < LEAST_SHARE)) return null;

  const midi = middle(up, down)!;
  const widthSt = weightedMedian(
    votes.map((v) => v.widthSt),
    votes.map((v) => v.weight),
  );
  // Whether the pitch leaps is heard where it glides: between the notes of a scale it leaps anyway.
  const slides = votes.filter((v) => slid.has(v.takeId));
  const name = nameOf(ofSlides.support >= LEAST_SUPPORT ? slides : votes, share);
  const half = halfWidth(votes, name === 'blended' ? widthSt : 0);
  const confidence = Math.min(0.98, (byCoach ? Math.max(0.6, share) : share) * Math.exp(-Math.max(0, 2 * half - 2) / 4));
  if (name === 'blended' && !byCoach && confidence < LEAST_BLENDED) return null;
  const count = (direction: Direction): Count => {
    const found = new Set(votes.filter((v) => v.direction === direction).map((v) => `${v.takeId}/${v.leg}`)).size;
    return { found, of: Math.max(found, passing.filter((l) => l.direction === direction).length) };
  };
  const [ups, downs] = (['up', 'down'] as const).map(count);
  const own = takes.filter((t) => votes.some((v) => v.takeId === t.takeId));
  const ordered = [...votes].sort((a, b) => b.weight - a.weight);
  return {
    midi,
    lowMidi: midi - half,
    highMidi: midi + half,
    upMidi: up,
    downMidi: down,
    up: ups,
    down: downs,
    widthSt,
    name,
    confidence,
    impression: !byCoach && !(isEnough(own) && ups.of >= LEAST_PASSES && downs.of >= LEAST_PASSES),
    vowels: vowelsAt(takes, { midi, upMidi: up, downMidi: down, votes: ordered }),
    votes: ordered,
  };
}

/** How much speaks for a change, in votes, and as a share of the passes that went by. */
function shareOf(votes: Vote[], passing: RecentLeg[], recency: Map<string, number>): { support: number; share: number } {
  const voters = new Map<string, number>();
  let spoken = 0;
  for (const v of votes) {
    const key = `${v.takeId}/${v.leg}/${v.direction}`;
    if (!voters.has(key)) spoken += recency.get(v.takeId) ?? 1;
    voters.set(key, Math.max(voters.get(key) ?? 0, Math.min(1, v.weight)));
  }
  const support = [...voters.values()].reduce((a, b) => a + b, 0);
  const passed = passing.reduce((s, l) => s + l.recency, 0);
  const share = Math.min(1, support / Math.max(1, passed, spoken));
  return { support, share: support < LEAST_SUPPORT ? 0 : share };
}

/** Colour that turns at once, without a hitch, in fewer than half of the passes is a blend that some of them hurried. */
const OFTEN = 0.5;

/** Colour that turns within fewer semitones turns at once. */
export const BLEND_ST = 2.2;

function nameOf(votes: Vote[], share: number): CrossingName {
  const weightOf = (test: (v: Vote) => boolean) => votes.filter(test).reduce((s, v) => s + v.weight, 0);
  const flips = weightOf((v) => v.kind === 'flip' || v.kind === 'crack');
  const hitches = weightOf((v) => v.kind === 'dip');
  const turns = weightOf((v) => v.kind === 'timbre' || (v.kind === 'blend' && v.widthSt < BLEND_ST));
  const blends = weightOf((v) => v.kind === 'blend' && v.widthSt >= BLEND_ST);
  const often = hitches > turns || share >= OFTEN;
  const steps = hitches + turns;
  return flips > 0 && flips >= steps && flips >= blends ? 'flip' : steps >= blends && often ? 'toggle' : 'blended';
}

function centreOf(votes: Vote[]): number | null {
  return votes.length
    ? weightedMedian(
        votes.map((v) => v.midi),
        votes.map((v) => v.weight),
      )
    : null;
}

const middle = (a: number | null, b: number | null) => (a !== null && b !== null ? (a + b) / 2 : (a ?? b));

/**
 * Half of the 90 % interval of a centre. Takes of a day share what the day does to a voice, so takes count, not votes: scatter of the
 * takes' own centres, with USUAL_SCATTER_ST as prior for the first few, over their number, and what placing adds.
 */
function halfWidth(votes: Vote[], widthSt: number): number {
  const centres = (['up', 'down'] as const).map((d) => centreOf(votes.filter((v) => v.direction === d)));
  const byTake = new Map<string, number[]>();
  for (const v of votes)
    byTake.set(v.takeId, [...(byTake.get(v.takeId) ?? []), v.midi - (v.direction === 'up' ? centres[0] : centres[1])!]);
  const off = [...byTake.values()].map((o) => o.reduce((s, x) => s + x, 0) / o.length);
  const squares = off.reduce((s, o) => s + o * o, 0) + USUAL_TAKES * USUAL_SCATTER_ST ** 2;
  const variance = squares / (off.length - 1 + USUAL_TAKES) / off.length;
  const oneSided = centres.some((c) => c === null) ? (USUAL_HYSTERESIS_ST / 2) ** 2 : 0;
  return NINE_IN_TEN * Math.sqrt(variance + oneSided + (PLACING_ST + PLACING_OF_WIDTH * widthSt) ** 2);
}
