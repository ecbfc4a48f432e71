import { gaussian, quantile, seededRandom, weightedMedian } from '../signal/stats';
import { Direction, Leg } from '../take/types';
import { Count, CrossingName, Passaggio, TakeEvidence, Vote } from './types';
import { recencyOf } from './recency';

/** Two changes nearer than this are one (bridges lie a fourth to a fifth apart; common practice, trade). */
const APART_ST = 4;
const KERNEL_ST = 1.3;
/** Weaker words are not counted. */
const LEAST_WEIGHT = 0.1;
const BOOTSTRAPS = 300;
/** Half a bin of the cross-over grid and the tracker's own blur: no interval is narrower than this on each side. */
const LEAST_HALF_WIDTH = 0.25;

/** Pool every leg's word into passaggi: how many there are and where, by evidence. */
export function poolPassaggi(takes: TakeEvidence[], all: Vote[]): Passaggio[] {
  const votes = all.filter((v) => v.weight > LEAST_WEIGHT);
  const recency = new Map(takes.map((t) => [t.takeId, recencyOf(t, takes)]));
  const legs = takes.flatMap((t) => t.findings.legs.map((leg) => ({ ...leg, recency: recency.get(t.takeId)! })));
  return clusters(votes)
    .map((cluster) => describe(cluster, legs, recency))
    .filter((p): p is Passaggio => p !== null)
    .sort((a, b) => a.midi - b.midi);
}

/** Group votes around the peaks of their weighted density, peaks at least APART_ST apart. */
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

/** Place, interval, direction and counts of one cluster; null when too few legs speak for it. */
function describe(votes: Vote[], legs: (Leg & { recency: number })[], recency: Map<string, number>): Passaggio | null {
  const centre = weightedMedian(
    votes.map((v) => v.midi),
    votes.map((v) => v.weight),
  );
  const passing = legs.filter((l) => l.lowestMidi < centre - 1.5 && l.highestMidi > centre + 1.5);
  const voters = new Map<string, number>();
  let spoken = 0;
  for (const v of votes) {
    const key = `${v.takeId}/${v.leg}/${v.direction}`;
    if (!voters.has(key)) spoken += recency.get(v.takeId) ?? 1;
    voters.set(key, Math.max(voters.get(key) ?? 0, Math.min(1, v.weight)));
  }
  const support = [...voters.values()].reduce((a, b) => a + b, 0);
  const byCoach = votes.some((v) => v.source === 'coach');
  const passed = passing.reduce((s, l) => s + l.recency, 0);
  const share = Math.min(1, support / Math.max(1, passed, spoken));
  if (!byCoach && (share < 0.3 || support < 0.5 || (voters.size < 2 && passing.length > 2))) return null;

  const up = centreOf(votes, 'up');
  const down = centreOf(votes, 'down');
  const midi = middle(up, down)!;
  const [lowMidi, highMidi] = interval(votes, midi);
  const count = (direction: Direction): Count => {
    const found = new Set(votes.filter((v) => v.direction === direction).map((v) => `${v.takeId}/${v.leg}`)).size;
    return { found, of: Math.max(found, passing.filter((l) => l.direction === direction).length) };
  };
  const flips = weightOf(votes, (v) => v.kind === 'flip' || v.kind === 'crack');
  const steps = weightOf(votes, (v) => v.kind === 'timbre' || v.kind === 'dip' || (v.kind === 'blend' && v.widthSt < 2.2));
  const blends = weightOf(votes, (v) => v.kind === 'blend' && v.widthSt >= 2.2);
  const name: CrossingName = flips >= steps && flips >= blends ? 'flip' : steps >= blends ? 'toggle' : 'blended';
  const narrow = Math.exp(-Math.max(0, highMidi - lowMidi - 1.5) / 4);
  return {
    midi,
    lowMidi,
    highMidi,
    upMidi: up,
    downMidi: down,
    up: count('up'),
    down: count('down'),
    widthSt: weightedMedian(
      votes.map((v) => v.widthSt),
      votes.map((v) => v.weight),
    ),
    name,
    confidence: Math.min(0.98, (byCoach ? Math.max(0.6, share) : share) * narrow),
    votes: [...votes].sort((a, b) => b.weight - a.weight),
  };
}

const weightOf = (votes: Vote[], test: (v: Vote) => boolean) => votes.filter(test).reduce((s, v) => s + v.weight, 0);

function centreOf(votes: Vote[], direction: Direction): number | null {
  const own = votes.filter((v) => v.direction === direction);
  return own.length
    ? weightedMedian(
        own.map((v) => v.midi),
        own.map((v) => v.weight),
      )
    : null;
}

const middle = (a: number | null, b: number | null) => (a !== null && b !== null ? (a + b) / 2 : (a ?? b));

/** 90 % interval of the centre: takes drawn again with replacement, each vote blurred by a part of its own width. */
function interval(votes: Vote[], midi: number): [number, number] {
  const random = seededRandom(votes.length * 7919 + Math.round(midi * 100));
  const normal = gaussian(random);
  const centres: number[] = [];
  for (let b = 0; b < BOOTSTRAPS; b++) {
    const drawn = votes.map(() => {
      const v = votes[Math.floor(random() * votes.length)];
      return { ...v, midi: v.midi + normal() * (0.2 + 0.08 * v.widthSt) };
    });
    centres.push(middle(centreOf(drawn, 'up'), centreOf(drawn, 'down'))!);
  }
  return [Math.min(midi - LEAST_HALF_WIDTH, quantile(centres, 0.05)), Math.max(midi + LEAST_HALF_WIDTH, quantile(centres, 0.95))];
}
