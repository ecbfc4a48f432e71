import { fitLine, median } from '../signal/stats';
import { CrossOverFit, fitCrossOvers } from '../take/crossover';
import { ColourPoint, Direction, LegColour } from '../take/types';
import { Passaggio, TakeEvidence, Vote } from './types';
import { placeOf } from './zone';

const BIN_ST = 0.75;
/** Legs that span less tell no blend. */
const LEAST_SPAN_ST = 9;
/** A bin of the common curve needs so many legs. */
const LEAST_LEGS = 2;
const FEWEST_LEGS = 3;
/** Alignment of the legs' own heights settles in so many rounds. */
const ROUNDS = 4;
/** A blend that lies this near a change already heard is that change. */
const SAME_ST = 4.5;
/** Confidence a pooled blend needs to be said at all. */
const LEAST_CONFIDENCE = 0.35;
/** Beside a change already heard it takes more. */
const LEAST_BESIDE = 0.75;

interface OwnLeg {
  takeId: string;
  leg: number;
  direction: Direction;
  timeS: number;
  points: ColourPoint[];
}

/**
 * A change that no pass makes audible: colour that crosses over little by little is lost in a single leg's room and vowel, so the
 * curves of all legs of a direction are laid over each other (each at its own height) and the cross-over is looked for in the two
 * common ones. Every leg that went by votes for it.
 */
export function blendVotes(takes: TakeEvidence[], heard: Passaggio[], recency: Map<string, number>): Vote[] {
  const legs = takes
    .flatMap(({ takeId, findings: { legs, colours, durationS } }): OwnLeg[] => [
      ...legs.map((l, leg) => ({ takeId, leg, direction: l.direction, timeS: (l.startS + l.endS) / 2, points: l.colour ?? [] })),
      // A scale's colours belong to the take; legs of it are counted from the first that goes their way.
      ...(colours ?? []).map((c) => ({ takeId, leg: legs.findIndex((l) => l.direction === c.direction), timeS: durationS / 2, ...c })),
    ])
    .filter(({ points }) => points.length > 1 && points[points.length - 1].midi - points[0].midi >= LEAST_SPAN_ST);
  if (legs.length < FEWEST_LEGS) return [];
  const directions = (['up', 'down'] as const).filter((d) => legs.some((l) => l.direction === d));
  const curves = directions.map((direction): LegColour => ({
    direction,
    points: withoutSteps(commonCurve(legs.filter((l) => l.direction === direction)), placesOf(heard, direction)),
  }));
  const fits = fitCrossOvers(curves);
  return directions.flatMap((direction, d) =>
    fits[d]
      .filter((fit) => isNew(fit, direction, heard) && !rejected(takes, fit))
      .flatMap((fit) => legs.filter((l) => l.direction === direction).flatMap((leg) => vote(leg, fit, recency))),
  );
}

/** Where the coach said that there is nothing, nothing is made of colour either. */
const rejected = (takes: TakeEvidence[], fit: CrossOverFit) =>
  takes.some(({ marks }) => marks.some((m) => m.verdict === 'reject' && Math.abs(m.midi - fit.midi) < SAME_ST));

const placesOf = (heard: Passaggio[], direction: Direction) => heard.map((p) => placeOf(p, direction));

function isNew(fit: CrossOverFit, direction: Direction, heard: Passaggio[]): boolean {
  return (
    fit.confidence >= (heard.length ? LEAST_BESIDE : LEAST_CONFIDENCE) &&
    placesOf(heard, direction).every((place) => Math.abs(place - fit.midi) > SAME_ST)
  );
}

function vote({ takeId, leg, direction, timeS, points }: OwnLeg, fit: CrossOverFit, recency: Map<string, number>): Vote[] {
  if (points[0].midi > fit.midi - 2 || points[points.length - 1].midi < fit.midi + 2) return [];
  const weight = (recency.get(takeId) ?? 1) * fit.confidence;
  return [{ takeId, leg, timeS, midi: fit.midi, direction, kind: 'blend', widthSt: fit.widthSt, weight, source: 'machine' }];
}

/** A leg's own height and tilt against the common curve: which vowel it was, and the filter's tilt, which can't be told from the source's. */
interface Lie {
  height: number;
  tilt: number;
}

/** Legs laid over each other: each bin's median once every leg has found how it lies, and how sure that is. */
function commonCurve(legs: OwnLeg[]): ColourPoint[] {
  const rows = legs.map((l) => l.points.map((p) => ({ ...p, bin: Math.round(p.midi / BIN_ST) })));
  const lies: Lie[] = legs.map(() => ({ height: 0, tilt: 0 }));
  const levelled = (l: number, { midi, score }: ColourPoint) => score - lies[l].height - lies[l].tilt * midi;
  let curve = new Map<number, number>();
  for (let round = 0; round < ROUNDS; round++) {
    const at = new Map<number, number[]>();
    rows.forEach((row, l) => row.forEach((p) => at.set(p.bin, [...(at.get(p.bin) ?? []), levelled(l, p)])));
    curve = new Map([...at.entries()].map(([bin, scores]) => [bin, median(scores)]));
    rows.forEach((row, l) => {
      const { slope, intercept } = fitLine(
        row.map((p) => p.midi),
        row.map((p) => p.score - curve.get(p.bin)!),
      );
      lies[l] = { height: intercept, tilt: slope };
    });
    // The legs' common tilt is the curve's.
    const tilt = median(lies.map((lie) => lie.tilt));
    for (const lie of lies) lie.tilt -= tilt;
    rows.forEach((row, l) => (lies[l].height = median(row.map((p) => p.score - lies[l].tilt * p.midi - curve.get(p.bin)!))));
  }
  return [...curve.keys()]
    .sort((a, b) => a - b)
    .flatMap((bin): ColourPoint[] => {
      const own = rows.flatMap((row, l) =>
        row.filter((p) => p.bin === bin).map((p) => ({ off: levelled(l, p) - curve.get(bin)!, noise: p.noise })),
      );
      if (own.length < Math.min(LEAST_LEGS, legs.length)) return [];
      const noise = Math.sqrt(own.reduce((s, o) => s + o.off ** 2 + o.noise ** 2, 0) / own.length ** 2);
      return [{ midi: bin * BIN_ST, score: curve.get(bin)!, noise }];
    });
}

/** The curve with the steps of changes already heard taken out, so that a blend beside them can be seen. */
function withoutSteps(points: ColourPoint[], places: number[]): ColourPoint[] {
  return places.reduce((curve, place) => {
    const side = (from: number, to: number) => curve.filter((p) => p.midi - place >= from && p.midi - place <= to);
    const [below, above] = [side(-STEP_TO_ST, -STEP_FROM_ST), side(STEP_FROM_ST, STEP_TO_ST)];
    if (below.length < 2 || above.length < 2) return curve;
    const step = mean(above) - mean(below);
    return curve.map((p) => {
      const part = Math.max(0, Math.min(1, (p.midi - place + STEP_FROM_ST) / (2 * STEP_FROM_ST)));
      return { ...p, score: p.score - step * part, noise: Math.abs(p.midi - place) < STEP_FROM_ST ? p.noise + Math.abs(step) : p.noise };
    });
  }, points);
}

const mean = (points: ColourPoint[]) => points.reduce((s, p) => s + p.score, 0) / points.length;

/** A step is read between so far and so far on both sides of its place. */
const STEP_FROM_ST = 1;
const STEP_TO_ST = 3;
