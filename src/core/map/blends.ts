import { median } from '../signal/stats';
import { CrossOverFit, fitCrossOvers, LegColour } from '../take/crossover';
import { ColourPoint, Direction } from '../take/types';
import { Passaggio, TakeEvidence, Vote } from './types';

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
const LEAST_CONFIDENCE = 0.5;

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
  const legs = takes.flatMap(({ takeId, findings }) =>
    findings.legs.flatMap((leg, at): OwnLeg[] => {
      const points = leg.colour ?? [];
      if (points.length < 2 || points[points.length - 1].midi - points[0].midi < LEAST_SPAN_ST) return [];
      return [{ takeId, leg: at, direction: leg.direction, timeS: (leg.startS + leg.endS) / 2, points }];
    }),
  );
  if (legs.length < FEWEST_LEGS) return [];
  const directions = (['up', 'down'] as const).filter((d) => legs.some((l) => l.direction === d));
  const curves = directions.map((direction): LegColour => ({
    direction,
    points: commonCurve(legs.filter((l) => l.direction === direction)),
  }));
  const fits = fitCrossOvers(curves);
  return directions.flatMap((direction, d) =>
    fits[d]
      .filter((fit) => isNew(fit, direction, heard))
      .flatMap((fit) => legs.filter((l) => l.direction === direction).flatMap((leg) => vote(leg, fit, recency))),
  );
}

function isNew(fit: CrossOverFit, direction: Direction, heard: Passaggio[]): boolean {
  return (
    fit.confidence >= LEAST_CONFIDENCE &&
    heard.every((p) => Math.abs(((direction === 'up' ? p.upMidi : p.downMidi) ?? p.midi) - fit.midi) > SAME_ST)
  );
}

function vote({ takeId, leg, direction, timeS, points }: OwnLeg, fit: CrossOverFit, recency: Map<string, number>): Vote[] {
  if (points[0].midi > fit.midi - 2 || points[points.length - 1].midi < fit.midi + 2) return [];
  const weight = (recency.get(takeId) ?? 1) * fit.confidence;
  return [{ takeId, leg, timeS, midi: fit.midi, direction, kind: 'blend', widthSt: fit.widthSt, weight, source: 'machine' }];
}

/** Legs laid over each other: each bin's median once every leg has found its own height, and how sure that is. */
function commonCurve(legs: OwnLeg[]): ColourPoint[] {
  const shift = legs.map(() => 0);
  let curve = new Map<number, number>();
  const rows = legs.map((l) => l.points.map((p) => ({ bin: Math.round(p.midi / BIN_ST), score: p.score, noise: p.noise })));
  for (let round = 0; round < ROUNDS; round++) {
    const at = new Map<number, number[]>();
    rows.forEach((row, l) => row.forEach(({ bin, score }) => at.set(bin, [...(at.get(bin) ?? []), score - shift[l]])));
    curve = new Map([...at.entries()].map(([bin, scores]) => [bin, median(scores)]));
    rows.forEach((row, l) => (shift[l] = median(row.map(({ bin, score }) => score - curve.get(bin)!))));
  }
  return [...curve.keys()]
    .sort((a, b) => a - b)
    .flatMap((bin): ColourPoint[] => {
      const own = rows.flatMap((row, l) =>
        row.filter((r) => r.bin === bin).map((r) => ({ off: r.score - shift[l] - curve.get(bin)!, noise: r.noise })),
      );
      if (own.length < Math.min(LEAST_LEGS, legs.length)) return [];
      const noise = Math.sqrt(own.reduce((s, o) => s + o.off ** 2 + o.noise ** 2, 0) / own.length ** 2);
      return [{ midi: bin * BIN_ST, score: curve.get(bin)!, noise }];
    });
}
