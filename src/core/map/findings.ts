import { noteName } from '../music/pitch';
import { fitLine, median } from '../signal/stats';
import { Evenness, Finding, Passaggio, PooledNote, TakeEvidence } from './types';

/** Notes pooled over takes: levels are against each take's own median, since microphones stand anywhere. */
export function pooledNotes(takes: TakeEvidence[]): PooledNote[] {
  const at = new Map<number, { db: number[]; clarity: number[]; jitter: number[] }>();
  for (const take of takes) {
    const profile = take.findings.profile;
    if (profile.length < 4) continue;
    const middle = median(profile.map((p) => p.levelDb));
    for (const p of profile) {
      const s = at.get(p.midi) ?? { db: [], clarity: [], jitter: [] };
      s.db.push(p.levelDb - middle);
      s.clarity.push(p.clarity);
      s.jitter.push(p.jitterCents);
      at.set(p.midi, s);
    }
  }
  return [...at.entries()]
    .sort((a, b) => a[0] - b[0])
    .map(([midi, s]) => ({ midi, db: median(s.db), clarity: median(s.clarity), jitterCents: median(s.jitter) }));
}

const slopeOver = (notes: PooledNote[]) =>
  fitLine(
    notes.map((n) => n.midi),
    notes.map((n) => n.db),
  ).slope;

/** Name what happens in the voice (trade.md section 4), each with its measurement. */
export function nameFindings(takes: TakeEvidence[], passaggi: Passaggio[]): Finding[] {
  const notes = pooledNotes(takes.filter((t) => t.findings.task === 'siren' || t.findings.task === 'scale'));
  const takeIds = takes.map((t) => t.takeId);
  const findings: Finding[] = passaggi.map(crossingFinding);
  if (notes.length < 12) return findings;
  const pulled = pulledChest(notes, passaggi, takeIds);
  const none = pulled ? null : noChest(notes, passaggi, takeIds);
  for (const f of [pulled, none, ...passaggi.map((p) => weakFirstHead(notes, p)), pulled || none ? null : unevenLoudness(notes, takeIds)])
    if (f) findings.push(f);
  return findings;
}

function crossingFinding(p: Passaggio): Finding {
  const found = p.up.found + p.down.found;
  const of = p.up.of + p.down.of;
  const how = {
    flip: 'the pitch leaps across',
    toggle: 'the colour changes at once',
    blended: `the colour changes little by little over about ${Math.round(p.widthSt)} semitones`,
  }[p.name];
  return {
    name: p.name,
    midi: p.midi,
    confidence: p.confidence,
    because: `Around ${noteName(p.midi)} ${how} (heard in ${found} of ${of} passes).`,
    takeIds: [...new Set(p.votes.map((v) => v.takeId))],
  };
}

/** Pitch so many times as restless as below is strained (tuned on simulated singers: pulled ones from 1.8, others to 1.6). */
const UNSTEADY = 1.7;

/** Rising pressure to the very top: loud, with unrest in the pitch, and nothing hands over up there. */
function pulledChest(notes: PooledNote[], passaggi: Passaggio[], takeIds: string[]): Finding | null {
  const top = notes.slice(-5);
  const below = notes.slice(Math.max(0, notes.length - 16), -5);
  if (below.length < 5) return null;
  const rough = median(top.map((n) => n.jitterCents)) / Math.max(1, median(below.map((n) => n.jitterCents)));
  const handsOver = passaggi.some((p) => p.midi > notes[notes.length - 1].midi - 8);
  const louder = median(top.map((n) => n.db)) - median(below.map((n) => n.db));
  if (handsOver || rough < UNSTEADY || louder < 4) return null;
  const midi = notes[notes.length - 5].midi;
  return {
    name: 'pulled-chest',
    midi,
    confidence: Math.min(0.95, 0.4 + 0.08 * rough + 0.02 * louder),
    because: `From ${noteName(midi)} up the voice is ${louder.toFixed(0)} dB louder than below and ${rough.toFixed(1)} times as unsteady, and no change to head is heard before the top.`,
    takeIds,
  };
}

/** Head carried to the bottom: the low notes fade early and no change is heard down there. */
function noChest(notes: PooledNote[], passaggi: Passaggio[], takeIds: string[]): Finding | null {
  const low = notes.slice(1, 9);
  const fade = slopeOver(low);
  const lowestChange = Math.min(...passaggi.map((p) => p.midi), Infinity);
  if (fade < 1.4 || lowestChange < notes[0].midi + 14) return null;
  const midi = notes[8].midi;
  return {
    name: 'no-chest',
    midi,
    confidence: Math.min(0.95, 0.4 + 0.3 * (fade - 0.8)),
    because: `Below ${noteName(midi)} the voice fades by ${fade.toFixed(1)} dB a semitone and no change into chest is heard.`,
    takeIds,
  };
}

/** The two to four notes above the change are softer and airier than their neighbours. */
function weakFirstHead(notes: PooledNote[], p: Passaggio): Finding | null {
  const from = Math.round((p.upMidi ?? p.midi) + 1);
  const weak = notes.filter((n) => n.midi >= from && n.midi < from + 4);
  const below = notes.filter((n) => n.midi >= from - 6 && n.midi < from - 1);
  const above = notes.filter((n) => n.midi >= from + 5 && n.midi < from + 10);
  if (weak.length < 3 || below.length < 3 || above.length < 3) return null;
  const sides = (median(below.map((n) => n.db)) + median(above.map((n) => n.db))) / 2;
  const drop = sides - median(weak.map((n) => n.db));
  const noise = (n: PooledNote) =>
    -10 * Math.log10(Math.min(0.999, Math.max(0.05, n.clarity)) / (1 - Math.min(0.999, Math.max(0.05, n.clarity))));
  const airier = median(weak.map(noise)) - median(below.map(noise));
  if (drop < 2.5 || airier < 2) return null;
  return {
    name: 'weak-first-head',
    midi: from + 1,
    confidence: Math.min(0.95, 0.35 + drop / 12 + airier / 30),
    because: `From ${noteName(from)} to ${noteName(from + 3)} the voice is ${drop.toFixed(1)} dB softer and ${airier.toFixed(0)} dB airier than on either side.`,
    takeIds: [...new Set(p.votes.map((v) => v.takeId))],
  };
}

/** The level curve against an even rise (an even voice gains intensity as it climbs; common practice). */
export function evennessOf(notes: PooledNote[]): Evenness | null {
  const inner = notes.slice(2, -2);
  if (inner.length < 10) return null;
  const line = fitLine(
    inner.map((n) => n.midi),
    inner.map((n) => n.db),
  );
  const off = inner.map((n) => n.db - line.intercept - line.slope * n.midi);
  const worst = off.reduce((w, o, i) => (Math.abs(o) > Math.abs(off[w]) ? i : w), 0);
  return {
    slopeDb: 12 * line.slope,
    strayDb: Math.sqrt(off.reduce((s, o) => s + o * o, 0) / off.length),
    worstMidi: inner[worst].midi,
    worstDb: off[worst],
  };
}

function unevenLoudness(notes: PooledNote[], takeIds: string[]): Finding | null {
  const even = evennessOf(notes);
  if (!even || even.strayDb < 6) return null;
  return {
    name: 'uneven-loudness',
    midi: even.worstMidi,
    confidence: Math.min(0.9, even.strayDb / 8),
    because: `The level strays ${even.strayDb.toFixed(1)} dB from an even rise, most at ${noteName(even.worstMidi)} (${even.worstDb > 0 ? 'jumps out' : 'drops away'} by ${Math.abs(even.worstDb).toFixed(0)} dB).`,
    takeIds,
  };
}
