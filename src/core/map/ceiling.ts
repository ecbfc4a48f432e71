import { cholesky, unwhiten, whiten } from '../signal/linear';
import { median } from '../signal/stats';
import type { Ceiling, TakeEvidence } from './types';
import { votesOf } from './votes';

/** Slides up that tell a ceiling at least, and so many dB between the softest and the loudest of them. */
const LEAST_PASSES = 3;
const LEAST_SPREAD_DB = 5;
/** A leg that passes fewer notes is no slide. */
const LEAST_NOTES = 7;

// What is assumed before anything is heard: a ceiling rises and falls by this much from note to note (tuned on simulated voices, see
// the test), lies somewhere around the middle, and a voice keeps to it within this (the scale of a logistic).
const STEP_DB = 4;
const ANYWHERE_DB = 15;
const KEEPS_TO_DB = 1;
const ROUNDS = 30;
const CONVERGED_DB = 1e-4;
/** Less sure than this isn't known. */
const SURE_DB = 2.5;

/**
 * The ceiling of connection: over which level, at each note, the same slide sung soft, medium and full breaks on the way up. Slides that
 * carry the same word `together` (one microphone, one setting) are compared against the middle of them all; the newest such set tells.
 * Every note a slide came through joined lies under the ceiling, the note it flipped or cracked at over it: a logistic likelihood over
 * a random walk from note to note, solved by Newton's method. The coach's marks count as in the map.
 *
 * @returns nothing where no slides of different loudness were sung; `notes` is empty where nothing broke.
 */
export function ceilingOf(takes: readonly TakeEvidence[]): Ceiling | undefined {
  const sets = new Map<string, TakeEvidence[]>();
  for (const t of takes)
    if (t.together && t.findings.task === 'siren' && t.findings.quality.usable) sets.set(t.together, [...(sets.get(t.together) ?? []), t]);
  const newest = (set: TakeEvidence[]) => Math.max(...set.map((t) => t.recordedAt ?? 0));
  for (const set of [...sets.values()].sort((a, b) => newest(b) - newest(a))) {
    const passes = passesOf(set);
    if (passes) return { notes: ceilingUnder(passes), passes, takeIds: set.map((t) => t.takeId) };
  }
  return undefined;
}

/** Slides up with their levels against the middle of all of them; null where they don't differ in loudness. */
function passesOf(takes: readonly TakeEvidence[]): Ceiling['passes'] | null {
  const ups = takes.flatMap((take) => {
    const votes = votesOf(take);
    return take.findings.legs.flatMap((leg, i) =>
      leg.direction === 'up' && leg.levels && leg.levels.length >= LEAST_NOTES
        ? [{ levels: leg.levels, brokeAt: brokeAt(votes.filter((v) => v.leg === i)) }]
        : [],
    );
  });
  if (ups.length < LEAST_PASSES) return null;
  const middle = median(ups.flatMap((up) => up.levels.map((l) => l.db)));
  const loudness = ups.map((up) => median(up.levels.map((l) => l.db)));
  if (Math.max(...loudness) - Math.min(...loudness) < LEAST_SPREAD_DB) return null;
  return ups.map(({ levels, brokeAt }) => {
    const against = levels.map(({ midi, db }) => ({ midi, db: db - middle }));
    const joined = against.filter((l) => brokeAt === null || l.midi < brokeAt);
    const broke = against.find((l) => l.midi === brokeAt);
    return { joined, broke: broke ? { ...broke, db: Math.max(broke.db, comingTo(joined)) } : null };
  });
}

/** How loud a slide that goes on as it was going is at the next note: the note it breaks at is heard partly after the break, and softer. */
function comingTo(joined: Ceiling['passes'][number]['joined']): number {
  const [before, last] = joined.slice(-2);
  return last ? last.db + Math.max(0, last.db - before.db) : -Infinity;
}

/** The first note of a slide up at which the voice broke; null where it didn't. */
function brokeAt(votes: ReturnType<typeof votesOf>): number | null {
  const breaks = votes.filter((v) => v.kind === 'flip' || v.kind === 'crack').map((v) => Math.round(v.midi));
  return breaks.length ? Math.min(...breaks) : null;
}

/**
 * Where the ceiling lies, over what was sung; notes at which it is not known are left out. It is never known under the lowest note at
 * which a slide broke nor over the highest: what came through joined there only says that it lies higher.
 */
export function ceilingUnder(passes: Ceiling['passes']): Ceiling['notes'] {
  const breaks = passes.flatMap((p) => (p.broke ? [p.broke.midi] : []));
  if (!breaks.length) return [];
  const sung = passes.flatMap((p) => [...p.joined, ...(p.broke ? [p.broke] : [])]).map((l) => l.midi);
  const low = Math.min(...sung);
  const n = Math.max(...sung) - low + 1;
  const said = passes.flatMap(({ joined, broke }) => [
    ...joined.map(({ midi, db }) => ({ at: midi - low, db, over: 1 })),
    ...(broke ? [{ at: broke.midi - low, db: broke.db, over: -1 }] : []),
  ]);
  const height = new Float64Array(n);
  let factor = new Float64Array(0);
  for (let round = 0; round < ROUNDS; round++) {
    // Precision and pull of the walk from note to note, and of a level anywhere.
    const precision = new Float64Array(n * n);
    const pull = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      precision[i * n + i] += 1 / ANYWHERE_DB ** 2;
      pull[i] -= height[i] / ANYWHERE_DB ** 2;
      if (i + 1 === n) continue;
      const step = 1 / STEP_DB ** 2;
      precision[i * n + i] += step;
      precision[(i + 1) * n + i + 1] += step;
      precision[i * n + i + 1] -= step;
      precision[(i + 1) * n + i] -= step;
      pull[i] += step * (height[i + 1] - height[i]);
      pull[i + 1] -= step * (height[i + 1] - height[i]);
    }
    // What was heard: that the ceiling is over this level, or under it.
    for (const { at, db, over } of said) {
      const wrong = 1 / (1 + Math.exp((over * (height[at] - db)) / KEEPS_TO_DB));
      pull[at] += (over * wrong) / KEEPS_TO_DB;
      precision[at * n + at] += (wrong * (1 - wrong)) / KEEPS_TO_DB ** 2;
    }
    factor = precision;
    cholesky(factor, n);
    const move = unwhiten(factor, whiten(factor, pull, n), n);
    let most = 0;
    for (let i = 0; i < n; i++) {
      height[i] += move[i];
      most = Math.max(most, Math.abs(move[i]));
    }
    if (most < CONVERGED_DB) break;
  }
  return Array.from({ length: n }, (_, i) => {
    const unit = new Float64Array(n);
    unit[i] = 1;
    const white = whiten(factor, unit, n);
    return { midi: low + i, db: height[i], sdDb: Math.sqrt(white.reduce((sum, w) => sum + w * w, 0)) };
  }).filter(({ midi, sdDb }) => sdDb <= SURE_DB && midi >= Math.min(...breaks) && midi <= Math.max(...breaks));
}
