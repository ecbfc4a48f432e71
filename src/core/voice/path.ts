import { Candidates, MAX_CANDIDATES } from './frame';

/** States per frame: one for each candidate, and unvoiced last. */
const STATES = MAX_CANDIDATES + 1;
const UNVOICED = MAX_CANDIDATES;

const COMB_WEIGHT = 0.45;
const UNVOICED_COST = 0.56;
const VOICING_CHANGE_COST = 0.22;
const JUMP_COST_PER_OCTAVE = 1.3;
const MAX_JUMP_COST = 0.8;
/** A frame under the gate is called unvoiced unless it's clearly a tone. */
const GATED_COST = 0.45;

/** What is mostly the room's memory of earlier sound is no voice: under this share of fresh power it costs more and more. */
const LEAST_FRESH = 0.3;
const STALE_COST = 0.4;

/**
 * Best path through the candidates (dynamic programming; the idea of Mauch & Dixon 2014's probabilistic YIN with
 * costs in place of probabilities). Push frames in order; `decide(lag)` gives the choice `lag` frames back on the
 * path that is best so far, or -1 for unvoiced; `traceback` gives the whole path. Memory is a ring of `capacity`
 * frames, so the same code serves a live view and a whole take.
 */
export function createPath(capacity: number) {
  const back = new Int8Array(capacity * STATES);
  const hz = new Float32Array(capacity * MAX_CANDIDATES);
  const clarity = new Float32Array(capacity * MAX_CANDIDATES);
  // Octaves of this frame's candidates and the last one's: jumps are differences.
  let octaves = new Float64Array(MAX_CANDIDATES);
  let previousOctaves = new Float64Array(MAX_CANDIDATES);
  let cost = new Float64Array(STATES).fill(0);
  let next = new Float64Array(STATES);
  let previousCount = 0;
  // The last frame's candidates that may lie on the best path: any state is reached from its best one for MAX_JUMP_COST.
  const live = new Int8Array(MAX_CANDIDATES);
  let liveCount = 0;
  let frames = 0;

  /** Add a frame; `gateDb` is the level below which sound is taken for the room. */
  function push(c: Candidates, gateDb: number) {
    const row = (frames % capacity) * MAX_CANDIDATES;
    const backRow = (frames % capacity) * STATES;
    octaves.set(c.octaves);
    const gated = c.levelDb < gateDb;
    const stale = STALE_COST * Math.max(0, 1 - c.fresh / LEAST_FRESH);
    let best = Infinity;
    for (let s = 0; s < STATES; s++) {
      if (s !== UNVOICED && s >= c.count) continue;
      let least = Infinity;
      let from = UNVOICED;
      if (frames === 0) least = 0;
      else {
        least = cost[UNVOICED] + (s === UNVOICED ? 0 : VOICING_CHANGE_COST);
        for (let l = 0; l < liveCount; l++) {
          const p = live[l];
          const move =
            s === UNVOICED
              ? VOICING_CHANGE_COST
              : Math.min(MAX_JUMP_COST, JUMP_COST_PER_OCTAVE * Math.abs(octaves[s] - previousOctaves[p]));
          const total = cost[p] + move;
          if (total < least) {
            least = total;
            from = p;
          }
        }
      }
      const own = s === UNVOICED ? UNVOICED_COST : 1 - c.clarity[s] + COMB_WEIGHT * (1 - c.comb[s]) + (gated ? GATED_COST : 0) + stale;
      next[s] = least + own;
      back[backRow + s] = from;
      if (next[s] < best) best = next[s];
    }
    liveCount = 0;
    for (let s = 0; s < c.count; s++) {
      hz[row + s] = c.hz[s];
      clarity[row + s] = c.clarity[s];
      next[s] -= best; // keeps the sums small over any length
      if (next[s] < MAX_JUMP_COST) live[liveCount++] = s;
    }
    next[UNVOICED] -= best;
    [cost, next] = [next, cost];
    [octaves, previousOctaves] = [previousOctaves, octaves];
    previousCount = c.count;
    frames++;
  }

  function bestState(): number {
    let state = UNVOICED;
    for (let s = 0; s < previousCount; s++) if (cost[s] < cost[state]) state = s;
    return state;
  }

  /** The pitch chosen `lag` frames back (0 = newest) on the path that is best now; hz 0 when unvoiced. */
  function decide(lag: number): { hz: number; clarity: number } {
    let state = bestState();
    for (let i = 0; i < lag; i++) state = back[((frames - 1 - i) % capacity) * STATES + state];
    if (state === UNVOICED) return { hz: 0, clarity: 0 };
    const at = ((frames - 1 - lag) % capacity) * MAX_CANDIDATES + state;
    return { hz: hz[at], clarity: clarity[at] };
  }

  /** Write the whole path (needs capacity >= frames). */
  function traceback(outHz: Float32Array, outClarity: Float32Array) {
    let state = bestState();
    for (let f = frames - 1; f >= 0; f--) {
      const voiced = state !== UNVOICED;
      outHz[f] = voiced ? hz[f * MAX_CANDIDATES + state] : 0;
      outClarity[f] = voiced ? clarity[f * MAX_CANDIDATES + state] : 0;
      state = back[f * STATES + state];
    }
  }

  return { push, decide, traceback };
}
