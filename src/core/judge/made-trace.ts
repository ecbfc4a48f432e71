import type { KeyInTime } from '../exercise/render';
import type { NoteProfile, TakeEvent, TakeFindings, Trace } from '../take/types';
import { alignKeys } from './align';
import type { Hearing } from './hearing';
import { earlierIn } from './level';
import { audibleOn } from './sounds';
import type { Asked, KeyHeard } from './types';

/** How a made trace differs from what was asked. */
export interface Made {
  mistake?: 'wrong note' | 'flat' | 'droned' | 'faded' | 'stopped' | 'leapt';
  /** Seconds late throughout. */
  lateS?: number;
  /** Semitones higher throughout. */
  higherSt?: number;
  /** Sing no more than so many keys. */
  keys?: number;
}

const HOP_S = 0.01;
const LEVEL_DB = -20;
const LEAP_ST = 3;
/** Semitones in whose middle a voice stands when it has just leapt, seconds to come back. */
const LEAP_BACK_S = 0.4;

/** For tests: a display curve as a voice without any scatter would leave it, and the profile of one that hands over at `changeMidi`. */
export function madeTake(
  laid: readonly KeyInTime[],
  { mistake, lateS = 0.05, higherSt = 0, keys = laid.length }: Made = {},
): { findings: Pick<TakeFindings, 'quality' | 'events' | 'profile'>; trace: Trace } {
  const total = laid.reduce((s, k) => s + k.totalS, 0) + 1;
  const frames = Math.round(total / HOP_S);
  const trace: Trace = {
    hopS: HOP_S,
    midi: new Array(frames).fill(0),
    levelDb: new Array(frames).fill(-70),
    head: new Array(frames).fill(0),
  };
  let at = lateS;
  for (const key of laid.slice(0, keys)) {
    const first = key.notes[0];
    const last = key.notes[key.notes.length - 1];
    const longS = last.endS - first.startS;
    const wrong = key.notes.length - 1;
    for (let s = first.startS; s < last.endS; s += HOP_S) {
      const n = key.notes.findIndex((note) => s < note.endS);
      const [note, next] = [key.notes[n], key.notes[n + 1]];
      const off = (i: number) => (mistake === 'flat' ? -1 : mistake === 'wrong note' && i === wrong ? 1 : 0);
      const pitch = (i: number) => (mistake === 'droned' ? first.midi : key.notes[i].midi) + off(i);
      const share = (s - note.startS) / (note.endS - note.startS);
      let midi = note.slide && next ? pitch(n) + (pitch(n + 1) - pitch(n)) * share : pitch(n);
      const through = (s - first.startS) / longS;
      if (mistake === 'leapt') {
        const since = s - first.startS - 0.45 * longS;
        if (since >= 0) midi += LEAP_ST * Math.exp(-since / LEAP_BACK_S);
      }
      const i = Math.round((at + s) / HOP_S);
      if (i >= frames || (mistake === 'stopped' && through > 0.5 && through < 0.5 + 0.35 / longS)) continue;
      trace.midi[i] = midi + higherSt;
      trace.levelDb[i] = LEVEL_DB - (mistake === 'faded' ? 24 * Math.max(0, (through - 0.25) / 0.75) : 0);
    }
    at += key.totalS;
  }
  return {
    findings: { quality: { clipped: false, snrDb: 40, usable: true, reasons: [] }, events: [], profile: madeProfile(trace.midi, true) },
    trace,
  };
}

/** A profile of these pitches whose colour falls off more steeply above the middle (handed over), or stays and grows louder (carried). */
export function madeProfile(midi: readonly number[], handsOver: boolean): NoteProfile[] {
  const sung = [...new Set(midi.filter((m) => m > 0).map(Math.round))].sort((a, b) => a - b);
  const middle = (sung[0] + sung[sung.length - 1]) / 2;
  return sung.map((note) => ({
    midi: note,
    seconds: 0.5,
    levelDb: LEVEL_DB + (handsOver ? 0 : 1.5 * (note - middle)),
    clarity: 1,
    jitterCents: 2,
    head: 0,
    slopeDb: handsOver ? 10 + 0.3 * (note - middle) : 10 - 0.2 * (note - middle),
    firstDb: handsOver ? (note > middle ? 6 : 0) : note > middle ? -3 : 0,
  }));
}

/** What each check of a key is given, of what was asked on a sound and sung as a trace has it; no change is to be crossed. */
export function madeHearing(asked: Asked, trace: Trace, events: readonly TakeEvent[] = []): { keys: KeyHeard[]; hearing: Hearing } {
  const { keys, midi } = alignKeys(asked, trace);
  const earlier = earlierIn(keys, { trace, midi });
  return { keys, hearing: { asked, audible: audibleOn(asked.sound), trace, midi, events, leapDoubted: false, earlier, crossing: null } };
}
