import { ASKED_FOR, PATTERNS } from '../music/patterns';
import { degreeToSemitones } from '../music/scale';
import { median } from '../signal/stats';
import { Asked, KeySung, PatternSung, SungNote } from './types';

/** Between two keys there is a breath of a crotchet at 90 to 120 or more (common practice); within one, a shorter gap at most. */
const KEY_GAP_S = 0.4;
/** Costs of the alignment, in semitones off: a note left out, a note too many, and the most one wrong note can cost. */
const MISSING = 2;
const EXTRA = 1.2;
const WRONG = 2.4;
/** A pattern is recognised when its notes are this near on average. */
const RECOGNISED = 0.5;
const FEWEST_NOTES = 3;

/**
 * Match sung notes to a pattern and its keys, by dynamic programming over notes: each breath's notes are aligned to the
 * pattern in every key they could be in (a note may be missing, extra or wrong, each at a cost) and the cheapest is kept.
 * Without a pattern asked for, the usual ones are tried. Null when no pattern fits.
 */
export function alignPattern(notes: SungNote[], asked: Asked | null): PatternSung | null {
  const phrases = breaths(notes);
  const candidates = asked?.degrees ? [{ name: ASKED_FOR, degrees: asked.degrees }] : usualPatterns();
  let best: { sung: PatternSung; cost: number } | null = null;
  for (const { name, degrees } of candidates) {
    const keys = phrases.flatMap((phrase) => inKey(phrase, degrees));
    if (keys.length === 0) continue;
    const cost = keys.reduce((s, k) => s + k.cost, 0) / (keys.length * degrees.length);
    if (cost < RECOGNISED && (!best || cost < best.cost)) best = { sung: { name, degrees, keys: keys.map((k) => k.key) }, cost };
  }
  return best?.sung ?? null;
}

/**
 * The key and the degree that a sung note is, by its index among the take's notes; null for one that belongs to no key.
 *
 * @example placeIn(pattern, 4) // { tonicMidi: 60, degree: 5 }
 */
export function placeIn({ keys }: PatternSung, note: number): { tonicMidi: number; degree: number } | null {
  for (const { tonicMidi, notes } of keys) {
    const own = notes.find((n) => n.note === note);
    if (own) return { tonicMidi, degree: own.degree };
  }
  return null;
}

const usualPatterns = () => Object.entries(PATTERNS).map(([name, degrees]) => ({ name, degrees }));

/** Indices of notes breath by breath. */
function breaths(notes: SungNote[]): { note: SungNote; index: number }[][] {
  const out: { note: SungNote; index: number }[][] = [];
  notes.forEach((note, index) => {
    const last = out[out.length - 1];
    if (last && note.startS - last[last.length - 1].note.endS < KEY_GAP_S) last.push({ note, index });
    else out.push([{ note, index }]);
  });
  return out;
}

function inKey(phrase: { note: SungNote; index: number }[], degrees: number[]): { key: KeySung; cost: number }[] {
  if (phrase.length < FEWEST_NOTES) return [];
  const pitch = phrase.map(({ note }) => note.midi + note.cents / 100);
  const pattern = degrees.map(degreeToSemitones);
  // The key whose pattern has the same middle, and its neighbours.
  const middle = Math.round(median(pitch) - median(pattern));
  let best: { cost: number; pairs: (number | null)[]; tonic: number } | null = null;
  for (let tonic = middle - 5; tonic <= middle + 5; tonic++) {
    const { cost, pairs } = align(
      pitch,
      pattern.map((p) => p + tonic),
    );
    if (!best || cost < best.cost) best = { cost, pairs, tonic };
  }
  const { cost, pairs, tonic } = best!;
  const matched = new Set(pairs);
  return [
    {
      cost,
      key: {
        tonicMidi: tonic,
        startS: phrase[0].note.startS,
        endS: phrase[phrase.length - 1].note.endS,
        notes: pairs.map((at, i) => ({
          degree: degrees[i],
          note: at === null ? null : phrase[at].index,
          cents: at === null ? null : Math.round(100 * (pitch[at] - pattern[i] - tonic)),
        })),
        extra: phrase.filter((_, at) => !matched.has(at)).map(({ index }) => index),
      },
    },
  ];
}

/** Edit distance between sung pitches and expected ones; for each expected note the sung one, null where it is missing. */
function align(sung: number[], expected: number[]): { cost: number; pairs: (number | null)[] } {
  const n = sung.length;
  const m = expected.length;
  const cost = new Float64Array((n + 1) * (m + 1));
  const at = (i: number, j: number) => i * (m + 1) + j;
  const misfit = (i: number, j: number) => Math.min(WRONG, Math.abs(sung[i] - expected[j]));
  for (let i = 1; i <= n; i++) cost[at(i, 0)] = i * EXTRA;
  for (let j = 1; j <= m; j++) cost[at(0, j)] = j * MISSING;
  for (let i = 1; i <= n; i++)
    for (let j = 1; j <= m; j++)
      cost[at(i, j)] = Math.min(cost[at(i - 1, j - 1)] + misfit(i - 1, j - 1), cost[at(i - 1, j)] + EXTRA, cost[at(i, j - 1)] + MISSING);
  const pairs: (number | null)[] = expected.map(() => null);
  for (let i = n, j = m; i > 0 && j > 0;) {
    if (cost[at(i, j)] === cost[at(i - 1, j - 1)] + misfit(i - 1, j - 1)) pairs[--j] = --i;
    else if (cost[at(i, j)] === cost[at(i - 1, j)] + EXTRA) i--;
    else j--;
  }
  return { cost: cost[at(n, m)], pairs };
}
