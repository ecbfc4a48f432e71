import { ENGINE } from '../engine';
import { overshotBy } from '../judge/leaps';
import { WIDEST_STEP_ST } from '../take/note-events';
import type { TakeEvent, TakeFindings, Trace } from '../take/types';
import { colourIn } from './colour';
import { Followed, followSong, SungSongNote } from './follow';
import { barRisks, Level, LEVELS, levelOf, PhraseRisk } from './risks';
import { barAt, Song } from './types';

export const BREAKS = ['leapt', 'changed-at-once', 'stopped', 'fell-short'] as const;
/** leapt: the pitch leapt where none was asked; changed-at-once: the colour stepped; stopped: the sound broke off; fell-short: a high note wasn't reached. */
export type BreakName = (typeof BREAKS)[number];

/** How one bar went against what was said before. */
export interface BarOutcome {
  /** Index of the bar. */
  bar: number;
  called: Level;
  sung: boolean;
  /** Nothing broke that can be heard, but a change is leapt over in it, where a break can't be told from the leap that is asked for. */
  untold?: true;
  /** Null where it held, wasn't sung, or can't be told. */
  broke: { name: BreakName; midi: number; timeS: number } | null;
  /** Share of its notes within a quarter-tone, and how many there were. */
  inTune: number;
  notes: number;
}

/** Of the bars called something: how many were sung and told, and how many of those broke. */
export type Kept = Record<Level, { sung: number; broke: number }>;

/** What was said and what came of it. */
export interface Outcome {
  followed: Followed;
  bars: BarOutcome[];
  record: Kept;
}

/** Surer than this an event counts as heard. */
const HEARD = 0.4;
/** A hole in a note from here on is a stop, seconds; not at its very end. */
const STOP_S = 0.2;
/** A note sung lower than asked by so much was not reached, when it lies among the highest of the song. */
const SHORT_CENTS = 70;
const HIGHEST_ST = 3;
/** A note is in tune within so much of where it was meant. */
export const IN_TUNE_CENTS = 50;
/** An event so long before or after a note still belongs to it, seconds. */
const BESIDE_S = 0.08;
const AT_ONCE: Record<TakeEvent['kind'], BreakName> = { flip: 'leapt', crack: 'leapt', timbre: 'changed-at-once', dip: 'changed-at-once' };
/**
 * A level that dips between two notes is a consonant, unless the colour steps there by so much (units of the timbre axis; 0.4 to 0.8 do alike
 * on voices of two unrelated makers in rooms: without it of another's changes in scales 42 % were heard, with it 89 %, 95 % of them true).
 */
const COLOUR_STEP = 0.8;

/**
 * A take of a song against what was predicted for it; null when the take isn't this song. `phrases`: the song as this voice was
 * expected to meet it in that key when it was sung.
 */
export function outcomeOf(
  song: Song,
  take: { findings: Pick<TakeFindings, 'events'>; trace: Trace },
  predicted: readonly PredictedBar[],
  semitones: number,
): Outcome | null {
  const followed = followSong(song, take.trace, semitones);
  if (!followed) return null;
  const top = Math.max(...song.notes.map((n) => n.midi));
  const bars = predicted.map(({ bar, called, leaps }): BarOutcome => {
    const own = followed.notes.filter((s) => barAt(song, song.notes[s.note].start) === bar);
    const told = own.filter((s) => s.cents !== null);
    const near = told.filter((s) => Math.abs(s.cents! - followed.tuningCents) <= IN_TUNE_CENTS);
    const broke = firstBreak(song, own, take, followed, top);
    return {
      bar,
      called,
      sung: own.length > 0,
      ...(leaps && own.length > 0 && !broke ? { untold: true } : {}),
      broke,
      inTune: told.length ? near.length / told.length : 0,
      notes: own.length,
    };
  });
  return { followed, bars, record: recordOf(bars) };
}

/** What of an outcome is kept beside the take. */
export interface KeptOutcome extends Pick<Followed, 'semitones' | 'tuningCents' | 'pace' | 'jumps'> {
  /** `head`: the colour of the note (timbre score); null where it didn't tell, missing in takes heard before it was kept. */
  notes: (Pick<SungSongNote, 'note' | 'startS' | 'endS' | 'cents'> & { head?: number | null })[];
  bars: BarOutcome[];
}

/** What is kept of a take of a song; `outcome` null: it could not be laid over the song. */
export interface Heard {
  engine: string;
  outcome: KeptOutcome | null;
}

/** What this engine hears in a take of a song, to be kept beside the take; an unusable take, or one of something else, has no outcome. */
export function heardIn(
  { song, predicted, semitones }: { song: Song; predicted: readonly PredictedBar[]; semitones: number },
  { findings, trace }: { findings?: TakeFindings; trace?: Trace },
): Heard {
  const outcome = findings?.quality.usable && trace ? outcomeOf(song, { findings, trace }, predicted, semitones) : null;
  if (!outcome) return { engine: ENGINE, outcome: null };
  return { engine: ENGINE, outcome: keptOf(outcome, trace!) };
}

/** An outcome as it is kept, each note with its colour. */
export const keptOf = ({ followed, bars }: Outcome, trace: Trace): KeptOutcome => ({
  semitones: followed.semitones,
  tuningCents: followed.tuningCents,
  pace: followed.pace,
  jumps: followed.jumps,
  notes: followed.notes.map(({ note, startS, endS, cents }) => ({ note, startS, endS, cents, head: colourIn({ startS, endS }, trace) })),
  bars,
});

/** What is said of a bar before it is sung. */
export interface PredictedBar {
  bar: number;
  called: Level;
  /** A change is crossed in it by a leap that is too wide to be heard into. */
  leaps?: true;
}

/** Every bar that is sung, as it is called before. */
export const predictionOf = (song: Song, phrases: readonly PhraseRisk[]): PredictedBar[] =>
  [...barRisks(song, phrases)]
    .map(([bar, risk]): PredictedBar => ({ bar, called: levelOf(risk), ...(leapsOver(song, phrases, bar) ? { leaps: true } : {}) }))
    .sort((a, b) => a.bar - b.bar);

const leapsOver = ({ notes }: Song, phrases: readonly PhraseRisk[], bar: number): boolean =>
  phrases.some((p) =>
    p.risks.some(
      (r) =>
        r.bar === bar &&
        r.name === 'crosses' &&
        r.over === 'leap' &&
        Math.abs(notes[r.note].midi - notes[r.note - 1].midi) > WIDEST_STEP_ST,
    ),
  );

/** How often bars called something broke; what can't be told counts for nothing. */
export function recordOf(bars: readonly Pick<BarOutcome, 'called' | 'sung' | 'untold' | 'broke'>[]): Kept {
  const out = Object.fromEntries(LEVELS.map((level) => [level, { sung: 0, broke: 0 }])) as Kept;
  for (const { called, sung, untold, broke } of bars) {
    if (!sung || untold) continue;
    out[called].sung++;
    if (broke) out[called].broke++;
  }
  return out;
}

function firstBreak(
  song: Song,
  own: readonly SungSongNote[],
  { findings, trace }: { findings: Pick<TakeFindings, 'events'>; trace: Trace },
  followed: Followed,
  top: number,
): BarOutcome['broke'] {
  for (const s of own) {
    const midi = song.notes[s.note].midi + followed.semitones;
    const before = followed.notes[followed.notes.indexOf(s) - 1];
    const event = findings.events.find(
      (e) =>
        e.confidence >= HEARD &&
        e.timeS >= s.startS - BESIDE_S &&
        e.timeS < s.endS - BESIDE_S &&
        (e.kind !== 'dip' || (before && colourSteps(e, before, s, trace))),
    );
    if (event) return { name: AT_ONCE[event.kind], midi: event.midi, timeS: event.timeS };
    const steps = before && before.note === s.note - 1 && before.sungMidi !== null && s.sungMidi !== null;
    if (
      steps &&
      overshotBy(
        { ...s, sungMidi: s.sungMidi! },
        Math.sign(song.notes[s.note].midi - song.notes[before.note].midi),
        trace.midi,
        trace.hopS,
      ) > 0
    )
      return { name: 'leapt', midi: song.notes[before.note].midi + followed.semitones, timeS: s.startS };
    const stop = holeIn(s, trace);
    if (stop !== null) return { name: 'stopped', midi, timeS: stop };
    const short = s.cents !== null && s.cents - followed.tuningCents < -SHORT_CENTS;
    if (short && song.notes[s.note].midi >= top - HIGHEST_ST) return { name: 'fell-short', midi, timeS: s.startS };
  }
  return null;
}

/** Whether the colour steps with a dip, the way the pitch goes: headier going up. */
function colourSteps({ direction }: TakeEvent, before: SungSongNote, after: SungSongNote, trace: Trace): boolean {
  const [a, b] = [colourIn(before, trace), colourIn(after, trace)];
  return a !== null && b !== null && (direction === 'up' ? 1 : -1) * (b - a) >= COLOUR_STEP;
}

/** Where the sound breaks off inside a note and comes again; null where it doesn't. */
function holeIn({ startS, endS }: SungSongNote, { hopS, midi }: Trace): number | null {
  let from = -1;
  let sounded = false;
  for (let i = Math.round(startS / hopS); i < Math.round(endS / hopS); i++) {
    if (midi[i] > 0) {
      if (sounded && from >= 0 && (i - from) * hopS >= STOP_S) return from * hopS;
      sounded = true;
      from = -1;
    } else if (from < 0) from = i;
  }
  return null;
}
