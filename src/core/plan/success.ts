import { Measure } from '../exercise/types';
import { fitLine } from '../signal/stats';
import { EventKind, TakeFindings } from '../take/types';

/** What a take was to do: the measure, and the notes it was to reach (whole MIDI). */
export interface Wanted {
  measure: Measure;
  lowMidi: number;
  highMidi: number;
}

/** An event counts from this confidence on. */
const SURE = 0.5;
/** The ends of a glide may be missed by this much, semitones. */
const REACH_ST = 1.5;
/** Within a quarter tone (common practice, no source). */
const IN_TUNE_CENTS = 50;
/** As many notes of a pattern must be right as takes of an exercise: four of five (common practice, no source). */
const MOST = 0.8;
const HELD_S = 1;
const STEADY_CENTS = 50;
const EVEN_DB = 3;
const LEAST_NOTES = 3;

/**
 * Whether a take of an exercise succeeded by its measure; null when it can't be told (an unusable take, or one that isn't
 * what was asked for). Beauty of tone doesn't count; that the sound goes on does (common practice, no source).
 */
export function succeeded(wanted: Wanted, findings: TakeFindings): boolean | null {
  const { quality, range, events } = findings;
  if (!quality.usable || !range) return null;
  const reached = range.lowestMidi <= wanted.lowMidi + REACH_ST && range.highestMidi >= wanted.highMidi - REACH_ST;
  const none = (...kinds: EventKind[]) => !events.some((e) => kinds.includes(e.kind) && e.confidence >= SURE);
  switch (wanted.measure) {
    case 'crosses':
      return reached && none('flip', 'crack');
    case 'blends':
      return reached && none('flip', 'crack', 'timbre', 'dip');
    case 'sounds-through':
      return reached && none('crack', 'flip') && wholePattern(findings) !== false;
    case 'in-tune':
      return inTune(findings);
    case 'holds':
      return steady(findings);
    case 'even': {
      const levels = levelsOf(findings, wanted);
      if (levels.length < LEAST_NOTES) return null;
      const { slope, intercept } = fitLine(
        levels.map((n) => n.midi),
        levels.map((n) => n.levelDb),
      );
      return levels.every((n) => Math.abs(n.levelDb - intercept - slope * n.midi) <= EVEN_DB);
    }
    case 'softer-up': {
      const levels = levelsOf(findings, wanted);
      if (levels.length < LEAST_NOTES) return null;
      return (
        fitLine(
          levels.map((n) => n.midi),
          levels.map((n) => n.levelDb),
        ).slope < 0
      );
    }
  }
}

const LEAST_SECONDS = 0.15;

const levelsOf = ({ profile }: TakeFindings, { lowMidi, highMidi }: Wanted) =>
  profile.filter((n) => n.seconds >= LEAST_SECONDS && n.midi >= lowMidi - 1 && n.midi <= highMidi + 1);

/** Whether every note of the pattern was sung in every key; null when no pattern was recognised. */
function wholePattern({ pattern }: TakeFindings): boolean | null {
  return pattern ? pattern.keys.every((k) => k.notes.every((n) => n.note !== null)) : null;
}

function inTune({ pattern, notes }: TakeFindings): boolean | null {
  const off = pattern ? pattern.keys.flatMap((k) => k.notes.map((n) => n.cents)) : notes.map((n) => n.cents);
  if (off.length === 0) return null;
  return off.filter((c) => c !== null && Math.abs(c) <= IN_TUNE_CENTS).length / off.length >= MOST;
}

function steady({ notes }: TakeFindings): boolean | null {
  const held = notes.filter((n) => n.endS - n.startS >= HELD_S);
  if (held.length === 0) return null;
  return held.every((n) => Math.abs(n.driftCents) <= STEADY_CENTS && Math.abs(n.cents) <= IN_TUNE_CENTS);
}
