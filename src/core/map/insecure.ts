import { said, Said } from '../words/said';
import { median } from '../signal/stats';
import { noiseDb } from './findings';
import { recencyOf } from './recency';
import { InsecureNote, PooledNote, TakeEvidence, Vote } from './types';

const MOST = 5;
const LEAST_SCORE = 1;
/** What counts as one: an audible change in every second pass, 2.5 times the usual unrest, 4 dB of hole, a quarter-tone off. */
const CHANGES = 0.5;
const UNREST = 2.5;
const HOLE_DB = 4;
const OFF_CENTS = 50;
/** A raspy note has this much more noise than its neighbours, dB, and a pitch this much more restless than the voice's usual. */
const RASP_DB = 8;
const RASP_UNREST = 3;
/** A pushed one stands out this much, dB, and wavers. */
const PUSH_DB = 6;
const PUSH_UNREST = 2.5;
/** The singer's own report counts as much as two of the machine's signs. */
const REPORT = 2;

/**
 * The notes least secure, worst first, with the signs they rest on: audible changes near them, unrest of pitch against the
 * rest of the voice, holes in the level curve, rasp and push, notes of scales sung off, and what the singer says. Blends are no
 * insecurity.
 */
export function insecureNotes(takes: TakeEvidence[], notes: PooledNote[], votes: Vote[]): InsecureNote[] {
  if (notes.length < 5) return [];
  const usual = Math.max(2, median(notes.map((n) => n.jitterCents)));
  const passes = Math.max(
    1,
    takes.reduce((n, t) => n + t.findings.legs.length, 0),
  );
  const off = offPitch(takes);
  return notes
    .map(({ midi, jitterCents }, i): InsecureNote => {
      const changes = votes.filter((v) => v.kind !== 'blend' && Math.abs(v.midi - midi) <= 0.5).length;
      const reports = votes.filter((v) => v.source === 'singer' && Math.abs(v.midi - midi) <= 1).length;
      // The ends of a range are rough and soft in every voice.
      const inner = i > 1 && i < notes.length - 2;
      const hole = holeAt(notes, i);
      const { rasp, push } = strainAt(notes, i, usual);
      const cents = off.get(midi);
      const signs: [number, Said][] = [
        [REPORT * Math.min(1, reports), said('the singer feels it')],
        [
          changes / passes / CHANGES,
          said('{changes, plural, one {# audible change} other {# audible changes}} in {passes} passes', { changes, passes }),
        ],
        [
          inner ? jitterCents / usual / UNREST : 0,
          said('pitch {times, number, ::.0} times as restless as elsewhere', { times: jitterCents / usual }),
        ],
        [inner ? hole / HOLE_DB : 0, said('{db} dB softer than its neighbours', { db: Math.round(hole) })],
        [inner ? rasp : 0, said('raspy: more noise than its neighbours and a restless pitch')],
        [inner ? push : 0, said('pushed: {db} dB louder than its neighbours and unsteady', { db: Math.round(-hole) })],
        [
          cents === undefined ? 0 : Math.abs(cents) / OFF_CENTS,
          (cents ?? 0) < 0
            ? said('sung {cents} cents low in scales', { cents: Math.round(-(cents ?? 0)) })
            : said('sung {cents} cents high in scales', { cents: Math.round(cents ?? 0) }),
        ],
      ];
      const telling = signs.filter(([s]) => s >= 0.5).sort((a, b) => b[0] - a[0]);
      return {
        midi,
        score: telling.reduce((s, [x]) => s + Math.min(2, x), 0),
        because: said('{note}: {signs}.', { note: { note: midi }, signs: { all: telling.map(([, words]) => words), as: 'semicolon' } }),
      };
    })
    .filter((n) => n.score >= LEAST_SCORE)
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST);
}

/** Notes two to four semitones off, on both sides. */
const around = (notes: PooledNote[], at: number) =>
  notes.filter((n) => Math.abs(n.midi - notes[at].midi) >= 2 && Math.abs(n.midi - notes[at].midi) <= 4);

/** Rasp and push of a note, each 1 or more where it is worth a word, else 0; both need an unsteady pitch, or any breathy or loud note would have one. */
function strainAt(notes: PooledNote[], at: number, usualUnrest: number): { rasp: number; push: number } {
  const others = around(notes, at);
  if (others.length < 3) return { rasp: 0, push: 0 };
  const unrest = notes[at].jitterCents / usualUnrest;
  const noisier = noiseDb(notes[at]) - median(others.map(noiseDb));
  const louder = notes[at].db - median(others.map((n) => n.db));
  const sure = (...parts: number[]) => (Math.min(...parts) >= 1 ? Math.min(...parts) : 0);
  return { rasp: sure(noisier / RASP_DB, unrest / RASP_UNREST), push: sure(louder / PUSH_DB, unrest / PUSH_UNREST) };
}

/** How far a note's level lies under the notes two to four semitones off, both sides taken together, dB. */
function holeAt(notes: PooledNote[], at: number): number {
  const others = around(notes, at);
  return others.length ? median(others.map((n) => n.db)) - notes[at].db : 0;
}

/** Median deviation of each note in scale takes, cents, where it was sung twice or more; recent takes first. */
function offPitch(takes: TakeEvidence[]): Map<number, number> {
  const at = new Map<number, number[]>();
  for (const take of takes) {
    if (recencyOf(take, takes) < 0.25) continue;
    for (const { notes } of take.findings.pattern?.keys ?? [])
      for (const { note, cents } of notes) {
        if (note === null || cents === null) continue;
        const midi = take.findings.notes[note].midi;
        at.set(midi, [...(at.get(midi) ?? []), cents]);
      }
  }
  return new Map([...at.entries()].filter(([, c]) => c.length > 1).map(([midi, c]) => [midi, median(c)]));
}
