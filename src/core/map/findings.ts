import { said, Said } from '../words/said';
import { fitLine, median } from '../signal/stats';
import { isEnough } from './enough';
import { Evenness, Finding, Passaggio, PooledNote, TakeEvidence } from './types';

/** Fewest notes of a take, or of takes that belong together, whose middle tells anything. */
const LEAST_NOTES = 4;

/**
 * Notes pooled over takes: levels are against each take's own median, since microphones stand anywhere; the keys of one step of a
 * lesson (`together`) share one, or every key would be as loud as the last.
 */
export function pooledNotes(takes: TakeEvidence[]): PooledNote[] {
  const groups = new Map<string, TakeEvidence[]>();
  for (const t of takes) groups.set(t.together ?? t.takeId, [...(groups.get(t.together ?? t.takeId) ?? []), t]);
  const at = new Map<number, { db: number[]; clarity: number[]; jitter: number[] }>();
  for (const group of groups.values()) {
    const profile = group.flatMap((t) => t.findings.profile);
    if (new Set(profile.map((p) => p.midi)).size < LEAST_NOTES) continue;
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

/** Noise of a note against its tone, dB. */
export const noiseDb = ({ clarity }: PooledNote): number => {
  const periodic = Math.min(0.999, Math.max(0.05, clarity));
  return 10 * Math.log10((1 - periodic) / periodic);
};

/** Fewest slides that speak for a voice by themselves. */
const LEAST_SLIDES = 2;

/** The takes that show loudness and steadiness over the whole voice: slides, which pass every note alike; where there are too few, scales too. */
export function wideTakes(takes: TakeEvidence[]): TakeEvidence[] {
  const slides = takes.filter((t) => t.findings.task === 'siren');
  return slides.length >= LEAST_SLIDES ? slides : takes.filter((t) => t.findings.task === 'siren' || t.findings.task === 'scale');
}

/** Levels going up, each leg against its own middle: head coming down over the same notes is left out. */
function risingLevels(takes: TakeEvidence[]): { midi: number; db: number }[] {
  const at = new Map<number, number[]>();
  for (const { findings } of takes)
    for (const { direction, levels } of findings.legs) {
      if (direction !== 'up' || !levels || levels.length < LEAST_NOTES) continue;
      const middle = median(levels.map((l) => l.db));
      for (const l of levels) at.set(l.midi, [...(at.get(l.midi) ?? []), l.db - middle]);
    }
  return [...at.entries()].sort((a, b) => a[0] - b[0]).map(([midi, db]) => ({ midi, db: median(db) }));
}

const slopeOver = (notes: { midi: number; db: number }[]) =>
  fitLine(
    notes.map((n) => n.midi),
    notes.map((n) => n.db),
  ).slope;

/**
 * Name what happens in the voice, each with its measurement (findings and their signs: common practice, no source); `notes` are
 * pooled from `wide`, those of the takes that show the whole voice.
 */
export function nameFindings(
  takes: TakeEvidence[],
  wide: TakeEvidence[],
  notes: PooledNote[],
  passaggi: Passaggio[],
  { expectedMidi, speakingMidi }: KnownPitches,
): Finding[] {
  const of = { takeIds: takes.map((t) => t.takeId), impression: !isEnough(wide) };
  const findings: Finding[] = passaggi.map(crossingFinding);
  if (notes.length < 12) return findings;
  const pulled = pulledChest(notes, risingLevels(takes), passaggi, expectedMidi);
  const none = pulled ? null : noChest(notes, passaggi, { expectedMidi, speakingMidi });
  for (const f of [pulled, none, pulled || none ? null : unevenLoudness(notes)]) if (f) findings.push({ ...f, ...of });
  for (const p of passaggi) {
    const weak = weakFirstHead(notes, p);
    if (weak) findings.push({ ...weak, impression: p.impression, takeIds: [...new Set(p.votes.map((v) => v.takeId))] });
  }
  return findings;
}

/** Where such a voice usually changes, and where this one speaks; null or missing when not known. */
interface KnownPitches {
  expectedMidi?: number;
  speakingMidi: number | null;
}

/** A finding before it is said what it rests on. */
type Sign = Omit<Finding, 'takeIds' | 'impression'>;

function crossingFinding(p: Passaggio): Finding {
  const found = p.up.found + p.down.found;
  const of = p.up.of + p.down.of;
  const how = { note: { note: p.midi }, found, of, semitones: Math.max(2, Math.round(p.widthSt)) };
  return {
    name: p.name,
    midi: p.midi,
    confidence: p.confidence,
    because: {
      flip: said('Around {note} the pitch leaps across (heard in {found} of {of} passes).', how),
      toggle: said('Around {note} the colour changes at once (heard in {found} of {of} passes).', how),
      blended: said(
        'Around {note} the colour changes little by little over about {semitones} semitones (from {found} passes taken together).',
        how,
      ),
    }[p.name],
    impression: p.impression,
    takeIds: [...new Set(p.votes.map((v) => v.takeId))],
  };
}

/** Pitch so many times as restless as below is strained (tuned on simulated singers: pulled ones from 1.45 and 6 dB, others as loud to 1.05). */
const UNSTEADY = 1.35;

/** Chest carried this far above where it hands over coming down, or usually does, is pulled (common practice: a third). */
const CARRIED_ST = 4;
/** So much louder up there than below, dB; and a level that goes on rising by this much a semitone where it breaks in the end. */
const LOUDER_DB = 5;
const STILL_RISING_DB = 0.25;

/**
 * Chest pulled up: going up it is held four semitones or more above where the voice hands over coming down (or where such voices
 * usually do), growing louder all the way, until it breaks or strains, whether or not head follows.
 */
function pulledChest(
  notes: PooledNote[],
  rising: { midi: number; db: number }[],
  passaggi: Passaggio[],
  expectedMidi: number | undefined,
): Sign | null {
  const [lowest] = passaggi;
  const top = notes[notes.length - 1].midi;
  const handsOver = lowest?.upMidi ?? lowest?.midi;
  const until = handsOver ?? top;
  // Where nothing is known of such voices, the top that no change is heard near.
  const usual = lowest?.downMidi ?? expectedMidi ?? (handsOver === undefined ? top - 8 : until);
  // Where such voices change is itself known to a semitone only.
  const least = lowest?.downMidi == null ? CARRIED_ST - 1 : CARRIED_ST;
  if (until - usual < least) return null;
  const levels = rising.length >= 12 ? rising : notes;
  const carried = levels.filter((n) => n.midi > usual && n.midi <= until);
  const below = levels.filter((n) => n.midi <= until - 5 && n.midi > until - 16);
  if (carried.length < least || below.length < 5) return null;
  const last = carried.slice(-5);
  const louder = median(last.map((n) => n.db)) - median(below.map((n) => n.db));
  if (louder < LOUDER_DB) return null;
  const unrest = (from: number, to: number) => median(notes.filter((n) => n.midi > from && n.midi <= to).map((n) => n.jitterCents));
  const rough = unrest(until - 5, until) / Math.max(1, unrest(until - 16, until - 5));
  // It strains, or it goes on growing until it breaks.
  const breaks = lowest?.name === 'flip' && slopeOver(carried) >= STILL_RISING_DB;
  if (!(rough >= UNSTEADY) && !breaks) return null;
  const from = last[0].midi;
  const how = { note: { note: from }, db: Math.round(louder), times: Math.round(10 * rough) / 10 };
  const louderBy =
    rough >= UNSTEADY
      ? said('From {note} up the voice is {db} dB louder than below and {times, number, ::.0} times as unsteady', how)
      : said('From {note} up the voice is {db} dB louder than below', how);
  return {
    name: 'pulled-chest',
    midi: from,
    confidence: Math.min(0.95, 0.4 + 0.08 * rough + 0.02 * louder),
    because:
      handsOver === undefined
        ? said('{louderBy}, and no change to head is heard before the top.', { louderBy })
        : said('{louderBy}, and only then it breaks into head, near {note}.', { louderBy, note: { note: handsOver } }),
  };
}

/** Low notes of head carried down fade by this much a semitone (tuned on simulated singers). */
const FADING_DB = 1.4;

/** Head carried to the bottom: below where the voice speaks the notes fade early, and no change is heard down there. */
function noChest(notes: PooledNote[], passaggi: Passaggio[], { expectedMidi, speakingMidi }: KnownPitches): Sign | null {
  // Who was never asked for the notes one speaks on hasn't shown what is there.
  if (speakingMidi === null || notes[0].midi >= speakingMidi) return null;
  const low = notes.slice(1, 9);
  const fade = slopeOver(low);
  // A change where such voices have it is one into chest.
  const chestUnder = Math.max(notes[0].midi + 14, (expectedMidi ?? 0) + 3);
  if (fade < FADING_DB || passaggi.some((p) => p.midi < chestUnder)) return null;
  const midi = notes[8].midi;
  return {
    name: 'no-chest',
    midi,
    confidence: Math.min(0.95, 0.4 + 0.3 * (fade - 0.8)),
    because: said(
      'Below {note} the voice fades by {db, number, ::.0} dB a semitone, down to where it speaks, and no change into chest is heard.',
      { note: { note: midi }, db: fade },
    ),
  };
}

/** The two to four notes above the change are softer and airier than their neighbours. */
function weakFirstHead(notes: PooledNote[], p: Passaggio): Sign | null {
  const from = Math.round((p.upMidi ?? p.midi) + 1);
  const weak = notes.filter((n) => n.midi >= from && n.midi < from + 4);
  const below = notes.filter((n) => n.midi >= from - 6 && n.midi < from - 1);
  const above = notes.filter((n) => n.midi >= from + 5 && n.midi < from + 10);
  if (weak.length < 3 || below.length < 3 || above.length < 3) return null;
  const sides = (median(below.map((n) => n.db)) + median(above.map((n) => n.db))) / 2;
  const drop = sides - median(weak.map((n) => n.db));
  const airier = median(weak.map(noiseDb)) - median(below.map(noiseDb));
  if (drop < 2.5 || airier < 2) return null;
  return {
    name: 'weak-first-head',
    midi: from + 1,
    confidence: Math.min(0.95, 0.35 + drop / 12 + airier / 30),
    because: said('From {from} to {to} the voice is {softer, number, ::.0} dB softer and {airier} dB airier than on either side.', {
      from: { note: from },
      to: { note: from + 3 },
      softer: drop,
      airier: Math.round(airier),
    }),
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

function unevenLoudness(notes: PooledNote[]): Sign | null {
  const even = evennessOf(notes);
  if (!even || even.strayDb < 6) return null;
  return {
    name: 'uneven-loudness',
    midi: even.worstMidi,
    confidence: Math.min(0.9, even.strayDb / 8),
    because: strays(even),
  };
}

function strays({ strayDb, worstMidi, worstDb }: Evenness): Said {
  const of = { stray: strayDb, note: { note: worstMidi }, by: Math.round(Math.abs(worstDb)) };
  return worstDb > 0
    ? said('The level strays {stray, number, ::.0} dB from an even rise, most at {note} (jumps out by {by} dB).', of)
    : said('The level strays {stray, number, ::.0} dB from an even rise, most at {note} (drops away by {by} dB).', of);
}
