import { ENGINE } from '../engine';
import { median } from '../signal/stats';
import { Range } from '../take/types';
import { blendCurve } from './blend';
import { ceilingOf } from './ceiling';
import { evennessOf, nameFindings, pooledNotes, wideTakes } from './findings';
import { poolPassaggi } from './passaggi';
import { insecureNotes } from './insecure';
import { recencyOf } from './recency';
import { votesOf } from './votes';
import { voiceWeight } from './weight';
import { Limit, TakeEvidence, VoiceKnown, VoiceMap, VoiceSummary } from './types';

/** Held notes of two takes may differ by this much and still confirm one another. */
const SAME_LIMIT_ST = 1;

/** Sums are rounded differently in another order: the same takes must give the same map, to the last bit. */
const byTime = (a: TakeEvidence, b: TakeEvidence) => (a.recordedAt ?? 0) - (b.recordedAt ?? 0) || (a.takeId < b.takeId ? -1 : 1);

/** Pool a singer's takes and the coach's marks into the map of the voice. Unusable takes are left out. */
export function mapVoice(all: TakeEvidence[], { expectedMidi }: VoiceKnown = {}): VoiceMap {
  const takes = all.filter((t) => t.findings.quality.usable).sort(byTime);
  const votes = takes.flatMap((t) => votesOf(t, recencyOf(t, takes)));
  const passaggi = poolPassaggi(takes, votes);
  const extreme = extremes(takes);
  const wide = wideTakes(takes);
  const notes = pooledNotes(wide);
  const speaking = takes.map((t) => t.findings.speakingMidi).filter((m): m is number => m !== null);
  const speakingMidi = speaking.length ? median(speaking) : null;
  const findings = nameFindings(takes, wide, notes, passaggi, { expectedMidi, speakingMidi });
  return {
    engine: ENGINE,
    takes: takes.length,
    extreme,
    usable: usableRange(takes),
    passaggi,
    findings,
    speakingMidi,
    levels: pooledNotes(takes.filter((t) => t.findings.task === 'siren')).map((n) => ({ midi: n.midi, db: n.db })),
    blend: extreme ? blendCurve(passaggi, extreme.low.midi, extreme.high.midi) : [],
    evenness: evennessOf(notes),
    ceiling: ceilingOf(takes),
    insecure: insecureNotes(takes, notes, votes),
    vowelTurns: vowelTurns(takes),
    calibrated: takes.filter((t) => t.findings.calibrated).length,
    weight: voiceWeight(findings, passaggi, notes),
    pinned: {},
  };
}

/** What a list shows of a map. */
export const summaryOf = ({ extreme, passaggi, findings }: VoiceMap): VoiceSummary => ({
  extreme: extreme && { low: { midi: extreme.low.midi }, high: { midi: extreme.high.midi } },
  passaggi: passaggi.map(({ midi, lowMidi, highMidi, confidence, impression }) => ({ midi, lowMidi, highMidi, confidence, impression })),
  findings: [...new Set(findings.map((f) => f.name))],
});

function extremes(takes: TakeEvidence[]): VoiceMap['extreme'] {
  const ranges = takes
    .filter((t) => t.findings.range && t.findings.task !== 'speech')
    .map((t) => ({ takeId: t.takeId, range: t.findings.range! }));
  if (ranges.length === 0) return null;
  const pick = (midi: number, value: (r: Range) => number): Limit => ({
    midi,
    takeIds: ranges.filter((r) => Math.abs(value(r.range) - midi) < 0.5).map((r) => r.takeId),
  });
  return {
    low: pick(Math.min(...ranges.map((r) => r.range.lowestMidi)), (r) => r.lowestMidi),
    high: pick(Math.max(...ranges.map((r) => r.range.highestMidi)), (r) => r.highestMidi),
  };
}

/** Where the colour of each vowel turns by itself, from the takes on it. */
function vowelTurns(takes: TakeEvidence[]): VoiceMap['vowelTurns'] {
  const at = new Map<string, number[]>();
  for (const { vowel = '', findings } of takes)
    if (findings.vowelTurnMidi != null) at.set(vowel, [...(at.get(vowel) ?? []), findings.vowelTurnMidi]);
  return [...at.entries()].map(([vowel, midi]) => ({ vowel, midi: median(midi) })).sort((a, b) => a.midi - b.midi);
}

/** A usable range of less than an octave says more of what was asked for than of the voice. */
const LEAST_USABLE_ST = 12;

/** The outermost held note that a second take confirms, rounded inward to a whole semitone. */
function usableRange(takes: TakeEvidence[]): VoiceMap['usable'] {
  const held = takes
    .filter((t) => t.findings.held && t.findings.task !== 'speech')
    .map((t) => ({ takeId: t.takeId, held: t.findings.held! }));
  const limit = (value: (r: Range) => number, outward: 1 | -1): Limit | null => {
    const sorted = [...held].sort((a, b) => outward * (value(b.held) - value(a.held)));
    for (let i = 0; i + 1 < sorted.length; i++) {
      const next = sorted[i + 1];
      // Whatever reached further than the next take counts only as far as that one went.
      const midi = Math.abs(value(sorted[i].held) - value(next.held)) <= SAME_LIMIT_ST ? value(sorted[i].held) : value(next.held);
      return { midi: Math.round(midi), takeIds: [sorted[i].takeId, next.takeId] };
    }
    return null;
  };
  const low = limit((r) => r.lowestMidi, -1);
  const high = limit((r) => r.highestMidi, 1);
  return low && high && high.midi - low.midi >= LEAST_USABLE_ST ? { low, high } : null;
}
