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

/** What was only touched is sung no nearer than this to (common practice, no source). */
const TOUCHED_RESERVE_ST = 2;
/** Somebody whose speaking pitch wasn't heard speaks about so far above the lowest note (common practice, no source). */
const SPEAKS_ABOVE_LOW_ST = 5;

/** The change of a voice: the one its map is surest of, else the one expected of its type; a whole MIDI note. */
export const changeIn = ({ passaggi }: Pick<VoiceMap, 'passaggi'>, type: VoiceTypeId): number =>
  Math.round([...passaggi].sort((a, b) => b.confidence - a.confidence)[0]?.midi ?? expectedChange(type));

/**
 * Places the keys are counted from. The ends are what the coach pinned, else what is usable, else what was touched less two
 * semitones, each end for itself. The change is the one the map is surest of, else the one expected of the voice type, which may lie
 * above all that was ever sung: then nothing crosses it.
 */
export function anchorsOf(map: VoiceMap, type: VoiceTypeId): { anchors: Anchors; changeMeasured: boolean } | null {
  if (!map.extreme) return null;
  // Where only the other end was pinned in a voice whose usable range isn't known, this end was only touched.
  const other = { low: 'usable-high', high: 'usable-low' } as const;
  const own = { low: 'usable-low', high: 'usable-high' } as const;
  const known = (end: 'low' | 'high') => map.usable !== null && (own[end] in map.pinned || map.pinned[other[end]] !== null);
  const low = Math.ceil(known('low') ? map.usable!.low.midi : map.extreme.low.midi + TOUCHED_RESERVE_ST);
  return {
    anchors: {
      low,
      high: Math.floor(known('high') ? map.usable!.high.midi : map.extreme.high.midi - TOUCHED_RESERVE_ST),
      change: changeIn(map, type),
      // Who speaks lower than they may sing has what lies near the speaking pitch at the lowest they may.
      speaking: Math.max(low + 1, Math.round(map.speakingMidi ?? map.extreme.low.midi + SPEAKS_ABOVE_LOW_ST)),
    },
    changeMeasured: map.passaggi.length > 0,
  };
}

/** Chest is worked on no higher than this above where somebody speaks, and this far under where such voices change (common practice, no source). */
const CHEST_OVER_SPEAKING_ST = 7;
const CHEST_UNDER_CHANGE_ST = 4;

/** The highest note of chest work, whatever change was measured. */
export const chestCeiling = (speakingMidi: number, type: VoiceTypeId): number =>
  Math.min(speakingMidi + CHEST_OVER_SPEAKING_ST, expectedChange(type) - CHEST_UNDER_CHANGE_ST);

/** A change lies this near to the finding that is about it. */
const ABOUT_ST = 5;

/** Where work for a finding lies: at its own change, or, where none is near it, at the one expected of the voice type. */
export function changeOf(finding: Finding, map: Pick<VoiceMap, 'passaggi'>, type: VoiceTypeId): number {
  const near = (midi: number) => Math.abs(midi - finding.midi);
  const own = [...map.passaggi].sort((a, b) => near(a.midi) - near(b.midi))[0];
  return Math.round(own && near(own.midi) <= ABOUT_ST ? own.midi : expectedChange(type));
}

/** Under this many semitones a voice has nothing to work on but its comfortable band (common practice, no source). */
export const NARROW_ST = 14;

/** Two findings of one name further apart than this are about two changes. */
const APART_ST = 4;

/** The findings that hold a voice back most, two at most. */
export function strongest(findings: readonly Finding[]): Finding[] {
  const out: Finding[] = [];
  for (const f of [...findings].sort((a, b) => URGENCY[b.name] * b.confidence - URGENCY[a.name] * a.confidence))
    if (!out.some((o) => o.name === f.name && Math.abs(o.midi - f.midi) < APART_ST)) out.push(f);
  // That a voice blends is nothing to work on beside what holds it back.
  return out.filter((f, i) => i === 0 || f.name !== 'blended').slice(0, 2);
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
