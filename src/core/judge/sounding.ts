import { median, quantile } from '../signal/stats';
import type { Trace } from '../take/types';
import { Check, framesOf, Hearing, noteAt, sungFrames } from './hearing';
import type { KeyHeard, NoteHeard } from './types';

/** Less of a key than this sounded: it was left out, not sung badly. */
const SUNG_SHARE = 0.25;
/** A note that sounds for less of its time than this was not sung; the last is let go early. */
export const NOTE_SHARE = 0.4;
const LAST_NOTE_SHARE = 0.3;
/** A hole this long inside a key is a stop; between notes a consonant makes shorter ones (tuned on simulated voices in rooms). */
const HOLE_S = 0.16;
const CONSONANT_HOLE_S = 0.26;

export const notSung: Check = {
  fault: 'not-sung',
  verdict: 'not told',
  look: (key) => (key.share < SUNG_SHARE ? {} : null),
};

/** Fewer frames than these tell no level. */
const LEAST_FRAMES = 7;
/** A stop is silence as well: the level falls this far under the key's own, however long a room rings. Elsewhere only the pitch was lost. */
const SILENCE_DB = 9;
/** For so much of the time: in a room a single frame falls as far where waves cancel. */
const SILENT_SHARE = 0.25;

export const stopped: Check = {
  fault: 'stopped',
  verdict: 'not yet',
  look(key, hearing) {
    const { trace, audible } = hearing;
    const sung = sungFrames(key, trace);
    if (!sung) return null;
    const quiet = (from: number, to: number) => fallsSilent(key, hearing, from, to);
    const most = (audible.consonants ? CONSONANT_HOLE_S : HOLE_S) / trace.hopS;
    for (let i = sung[0], silent = 0; i <= sung[1]; i++) {
      if (!(trace.midi[i] > 0)) silent++;
      else {
        if (silent >= most && quiet(i - silent, i) && quieterThanAfter(hearing, i - silent, i))
          return { midi: noteAt(key, (i - silent) * trace.hopS).midi, by: silent * trace.hopS };
        silent = 0;
      }
    }
    const missing = missingNote(key);
    return missing && quiet(...silentTime(key, missing, trace)) ? { midi: missing.midi } : null;
  },
};

/** A note that hardly sounded. Where a note is sung again the two share their time. */
function missingNote(key: KeyHeard): NoteHeard | null {
  const last = key.notes.length - 1;
  const again = (i: number) => [i - 1, i + 1].some((k) => key.notes[k]?.midi === key.notes[i].midi && !key.notes[Math.min(i, k)].slide);
  return key.notes.find((n, i) => !again(i) && n.soundedS < (i === last ? LAST_NOTE_SHARE : NOTE_SHARE) * n.askedS) ?? null;
}

/** When a note should have sounded, as frames: from where it begins, for as long as it was asked. */
function silentTime(key: KeyHeard, note: NoteHeard, trace: Trace): [number, number] {
  const [from] = framesOf(note, trace);
  return [from, Math.min(trace.levelDb.length, from + Math.max(LEAST_FRAMES, Math.round(note.askedS / trace.hopS)))];
}

/** Whether the level falls well under what the key sounds at, in so many of some frames. */
function fallsSilent(key: KeyHeard, { trace, midi }: Hearing, from: number, to: number): boolean {
  const [a, b] = framesOf(key, trace);
  const sounding = trace.levelDb.slice(a, b).filter((_, i) => midi[a + i] > 0);
  const there = trace.levelDb.slice(from, to);
  return sounding.length > 0 && there.length > 0 && quantile(there, SILENT_SHARE) < median(sounding) - SILENCE_DB;
}

/** What comes after a hole is read over so long. */
const AFTER_S = 0.25;

/** Whether a hole is as far under what sounds after it: a soft note whose pitch was found late is as soft before as after. */
function quieterThanAfter({ trace }: Hearing, from: number, to: number): boolean {
  const after = trace.levelDb.slice(to, to + Math.round(AFTER_S / trace.hopS));
  return quantile(trace.levelDb.slice(from, to), SILENT_SHARE) < median(after) - SILENCE_DB;
}

/** A note that is there, loud enough, and whose pitch was lost: nothing can be said of it. */
export const pitchLost: Check = {
  fault: 'not-heard',
  verdict: 'not told',
  look(key, hearing) {
    const missing = missingNote(key);
    return missing && !fallsSilent(key, hearing, ...silentTime(key, missing, hearing.trace)) ? { midi: missing.midi } : null;
  },
};
