import type { Said } from '../words/said';
import type { CrossingName, FindingName, VoiceMap, VowelCrossing } from '../map/types';
import { zoneOf } from '../map/zone';
import { anchorsOf, leaning, Lean, NARROW_ST } from '../plan/voice';
import { expectedChange, VoiceTypeId } from '../plan/voice-types';

/** A change as a melody meets it. */
export interface SongChange {
  /** Last note before the change going up, and coming down; MIDI with fractions. */
  up: number;
  down: number;
  /** Notes of the change, first and last. */
  first: number;
  last: number;
  /** `expected`: not heard in this voice, but where such voices change. */
  name: CrossingName | 'expected';
  /** 0..1 */
  confidence: number;
  vowels: VowelCrossing[];
  /** Takes it was heard in. */
  takeIds: string[];
}

/** What a melody is held against: a singer's map, as far as songs ask. */
export interface SongVoice {
  /** What may be sung: pinned, else usable, else touched less two semitones. */
  low: number;
  high: number;
  /** What set each end. */
  lowBy: 'pinned' | 'usable' | 'touched';
  highBy: 'pinned' | 'usable' | 'touched';
  /** Lowest first. */
  changes: SongChange[];
  findings: Partial<Record<FindingName, { midi: number; confidence: number; takeIds: string[] }>>;
  lean: Lean;
  insecure: { midi: number; because: Said }[];
  speaking: number;
  /** Only the comfortable band is sung: a changing, very young or narrow voice. */
  bandOnly: boolean;
}

/** The change nearest to a pitch: what heavy chest, weak head or lost chest found there is about. */
export const changeNear = (voice: SongVoice, midi: number): SongChange | undefined =>
  [...voice.changes].sort((a, b) => Math.abs(a.up - midi) - Math.abs(b.up - midi))[0];

/** Surer than this a first impression of a change is believed as much as a coach needs for a key. */
const BELIEVED = 0.3;

/** What songs ask of a map; null where nothing was ever sung. `bandOnly`: a voice that is changing or under nine. */
export function songVoice(map: VoiceMap, type: VoiceTypeId, bandOnly = false): SongVoice | null {
  const places = anchorsOf(map, type);
  if (!places || !map.extreme) return null;
  const { low, high, speaking } = places.anchors;
  const by = (end: 'low' | 'high') =>
    `usable-${end}` in map.pinned ? 'pinned' : map.usable && map.usable[end].midi === (end === 'low' ? low : high) ? 'usable' : 'touched';
  const heard = map.passaggi
    .filter((p) => p.confidence >= BELIEVED || 'change' in map.pinned)
    .map((p): SongChange => {
      const up = p.upMidi ?? p.downMidi ?? p.midi;
      return {
        up,
        down: p.downMidi ?? up,
        ...zoneOf(p),
        name: p.name,
        confidence: p.confidence,
        vowels: p.vowels,
        takeIds: [...new Set(p.votes.map((v) => v.takeId))],
      };
    });
  const at = expectedChange(type);
  // Where nothing was heard: if this voice goes past where such voices change, it must change somewhere about there.
  const guessed: SongChange[] =
    heard.length > 0 || map.extreme.high.midi < at
      ? []
      : [{ up: at, down: at, first: at - 1, last: at + 1, name: 'expected', confidence: 0.5, vowels: [], takeIds: [] }];
  return {
    low,
    high,
    lowBy: by('low'),
    highBy: by('high'),
    changes: [...heard, ...guessed].sort((a, b) => a.up - b.up),
    findings: Object.fromEntries(map.findings.map(({ name, midi, confidence, takeIds }) => [name, { midi, confidence, takeIds }])),
    lean: leaning(map),
    insecure: map.insecure.map(({ midi, because }) => ({ midi, because })),
    speaking,
    bandOnly: bandOnly || high - low < NARROW_ST,
  };
}

/** A voice that carries heavy chest up to its change, and is locked there. */
export const isLocked = ({ findings }: Pick<SongVoice, 'findings'>): boolean => 'pulled-chest' in findings;
