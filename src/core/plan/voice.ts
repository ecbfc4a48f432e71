import { Anchors } from '../exercise/keys';
import { Strand } from '../exercise/types';
import { Finding, FindingName, VoiceMap } from '../map/types';
import { Grades } from './types';
import { expectedChange, VoiceTypeId } from './voice-types';

/** How much a finding holds the voice back: what is worked on first. */
export const URGENCY: Record<FindingName, number> = {
  'pulled-chest': 7,
  'no-chest': 6,
  flip: 5,
  toggle: 4,
  'weak-first-head': 3.5,
  'uneven-loudness': 3,
  blended: 1,
};

/** Places the keys are counted from. A siren's extremes stand in for a usable range, two semitones inside. */
export function anchorsOf(map: VoiceMap, type: VoiceTypeId): { anchors: Anchors; changeMeasured: boolean } | null {
  const inside = map.extreme ? { low: Math.ceil(map.extreme.low.midi) + 1, high: Math.floor(map.extreme.high.midi) } : null;
  if (!inside) return null;
  const main = [...map.passaggi].sort((a, b) => b.confidence - a.confidence)[0];
  const change = main ? Math.round(main.midi) : Math.min(expectedChange(type), inside.high - 4);
  return {
    anchors: {
      low: Math.min(map.usable?.low.midi ?? inside.low, inside.low),
      high: Math.max(map.usable?.high.midi ?? 0, inside.high),
      change,
    },
    changeMeasured: Boolean(main),
  };
}

/** The findings that hold a voice back most, two at most. */
export function strongest(findings: readonly Finding[]): Finding[] {
  const seen = new Set<FindingName>();
  return [...findings]
    .sort((a, b) => URGENCY[b.name] * b.confidence - URGENCY[a.name] * a.confidence)
    .filter((f) => !seen.has(f.name) && seen.add(f.name))
    .slice(0, 2);
}

const LIGHT = -0.15;
const HEAVY = 0.5;

export type Lean = 'light' | 'balanced' | 'heavy' | 'pushes';

/** What the voice leans to: a light one is not lightened further, a heavy one not loaded further, one that pushes not at all at first. */
export function leaning({ findings, weight }: Pick<VoiceMap, 'findings' | 'weight'>): Lean {
  const has = (name: FindingName) => findings.some((f) => f.name === name);
  if (has('pulled-chest')) return 'pushes';
  if (has('no-chest')) return 'light';
  if (!weight) return 'balanced';
  return weight.lean > HEAVY ? 'heavy' : weight.lean < LIGHT ? 'light' : 'balanced';
}

/** Where a voice with a finding usually stands on each strand; the lowest of all its findings counts (common practice, no source). */
const STANDS: Record<FindingName, Partial<Grades>> = {
  'pulled-chest': { crossing: 1, head: 2, chest: 3, range: 1 },
  'no-chest': { crossing: 2, chest: 2, range: 2 },
  flip: { crossing: 1, head: 2 },
  toggle: { crossing: 3, head: 3 },
  'weak-first-head': { head: 2, crossing: 2 },
  'uneven-loudness': { evenness: 2 },
  blended: { crossing: 4, head: 4, evenness: 4, range: 4, straw: 3 },
};
const BEGINNING: Grades = { crossing: 2, head: 2, chest: 3, range: 2, evenness: 3, straw: 2 };

/** Grades a singer has: those the coach confirmed, and for the rest what the findings let expect. */
export function gradesOf(given: Partial<Grades>, findings: readonly Finding[]): Grades {
  const expected = (strand: Strand) => {
    const known = findings.map((f) => STANDS[f.name][strand]).filter((g) => g !== undefined);
    return known.length ? Math.min(...known) : BEGINNING[strand];
  };
  const strands = Object.keys(BEGINNING) as Strand[];
  return Object.fromEntries(strands.map((s) => [s, given[s] ?? expected(s)])) as Grades;
}
