import { said, Said } from '../words/said';
import { ENGINE } from '../engine';
import { median, quantile } from '../signal/stats';
import { trackVoice } from '../voice/track';
import { HOP_S, Pcm, VoiceTrack } from '../voice/types';
import { Contour, contourOf, framesIn } from './contour';
import { colourOf, fitCrossOvers } from './crossover';
import { sirenEvents, timeAt } from './events';
import { sirenLegs } from './legs';
import { heldRange, phonatedRange, sungNotes } from './notes';
import { noteEvents } from './note-events';
import { scaleLegs } from './scale-legs';
import { machineShare, whistleShare } from './not-voice';
import { alignPattern } from './pattern';
import { removeStruck } from './struck';
import { legHarmonics } from './leg-harmonics';
import { isSlid, taskMisfit } from './task-check';
import { sourceOf } from './source';
import { Filter, takeFilter, Timbre, TimbreAxis, timbreParts, timbreScore } from './timbre';
import { Asked, Leg, NoteProfile, Quality, Range, TakeFindings, Task, Trace } from './types';

const MIN_SUNG_S = 0.3;
const MAX_STRUCK_SHARE = 0.85;
/** Of a take that is no voice at all. */
const NEARLY_ALL = 0.85;
/** A voice’s second harmonic would be seen from here on. */
const QUIET_ENOUGH_DB = 30;
/** What stands out less is the room itself (tuned on takes of rooms without a voice). */
const LEAST_SNR_DB = 4;

/** What is known before a take is heard: what was asked for, and the singer's own timbre axis. */
export interface Known {
  asked?: Asked | null;
  axis?: TimbreAxis;
}

/** Analyse one take. Pure and deterministic. @throws RangeError as `trackVoice` does. */
export function analyseTake(pcm: Pcm, task: Task, known: Known = {}): { findings: TakeFindings; track: VoiceTrack; trace: Trace } {
  return analyseTrack(trackVoice(pcm), task, known, { durationS: pcm.samples.length / pcm.sampleRate, sampleRate: pcm.sampleRate });
}

/** The same from a track: what isn't voice (struck strings, an unusable take) is taken out of it. */
export function analyseTrack(
  track: VoiceTrack,
  task: Task,
  { asked = null, axis }: Known,
  of: { durationS: number; sampleRate: number },
): { findings: TakeFindings; track: VoiceTrack; trace: Trace } {
  const contour = contourOf(track);
  const struckShare = removeStruck(track, contour);
  const quality = judge(track, contour, struckShare);
  if (!quality.usable) contour.fill(NaN);
  const other = quality.usable ? notVoice(track, contour, task, quality.snrDb) : null;
  if (other) Object.assign(quality, { usable: false, reasons: [...quality.reasons, other] });
  for (let i = 0; i < track.frames; i++) if (Number.isNaN(contour[i])) track.f0[i] = 0;
  const findings: TakeFindings = {
    engine: ENGINE,
    task,
    ...of,
    quality,
    notes: [],
    pattern: null,
    calibrated: axis?.apart !== undefined,
    range: null,
    held: null,
    speakingMidi: null,
    vowelTurnMidi: null,
    legs: [],
    events: [],
    profile: [],
  };
  let head: Float64Array = new Float64Array(track.frames).fill(NaN);
  if (quality.usable) {
    findings.range = phonatedRange(contour, track.levelDb);
    const filter = takeFilter(track, contour);
    const timbre = timbreScore(track, contour, filter, axis);
    head = timbre.score;
    if (filter && task !== 'speech') findings.vowelTurnMidi = vowelTurn(timbre.turnMidi, findings.range);
    findings.profile = noteProfile(track, contour, head, filter);
    if (task === 'speech') findings.speakingMidi = median(contour.filter((m) => !Number.isNaN(m)));
    else {
      findings.held = heldRange(contour);
      if (task !== 'siren') findings.notes = sungNotes(contour);
      const slides = sirenLegs(contour);
      // What is sung freely is read as what it mostly is.
      const asSiren = task === 'siren' || (task === 'free' && (asked?.slid ?? isSlid(contour, slides)));
      const source = filter && sourceOf(track, contour, filter);
      findings.slid = asSiren;
      if (asSiren) {
        findings.legs = withCrossOvers(slides, contour, timbre).map((leg) => ({
          ...leg,
          levels: levelsOf(leg, contour, track.levelDb),
          harmonics: legHarmonics(track, contour, leg),
        }));
        if (source) findings.events = sirenEvents(contour, track.levelDb, source, findings.legs, timbre.turnMidi);
      } else {
        findings.legs = scaleLegs(findings.notes);
        if (source) findings.events = noteEvents(contour, source, findings.notes);
        if (task === 'scale') findings.pattern = alignPattern(findings.notes, asked);
      }
      const misfit = taskMisfit(task, contour, findings.legs, findings.notes, findings.pattern, asked);
      quality.reasons.push(...misfit);
      // From what isn't a siren no changes are read: every step of a scale would be a leap.
      if (task === 'siren' && misfit.length > 0) Object.assign(findings, { legs: [], events: [] });
    }
  }
  return { findings, track, trace: traceOf(track, contour, head) };
}

/** An octave under the meeting of pitch and first formant the second harmonic meets it; null where that isn't sung. */
function vowelTurn(meetingMidi: number, range: Range | null): number | null {
  const midi = meetingMidi - 12;
  return range && midi > range.lowestMidi && midi < range.highestMidi ? Math.round(midi * 10) / 10 : null;
}

/** Median level of a leg at each semitone it passes. */
function levelsOf(leg: Leg, contour: Contour, levelDb: Float32Array): { midi: number; db: number }[] {
  const at = new Map<number, number[]>();
  for (let i = Math.round(leg.startS / HOP_S); i < Math.round(leg.endS / HOP_S); i++) {
    if (Number.isNaN(contour[i])) continue;
    const midi = Math.round(contour[i]);
    const levels = at.get(midi);
    if (levels) levels.push(levelDb[i]);
    else at.set(midi, [levelDb[i]]);
  }
  return [...at.entries()].sort((a, b) => a[0] - b[0]).map(([midi, db]) => ({ midi, db: round(median(db), 1) }));
}

/** Fit the legs of a siren two by two: a way up and the way down after it share what isn't register. */
function withCrossOvers(legs: Leg[], contour: Contour, { score, turnMidi }: Timbre): Leg[] {
  const out: Leg[] = [];
  for (let i = 0; i < legs.length;) {
    const pair = legs.slice(i, legs[i + 1] && legs[i + 1].direction !== legs[i].direction ? i + 2 : i + 1);
    const colours = pair.map(({ direction, startS, endS }) => {
      const [from, to] = [startS, endS].map((s) => Math.round(s / HOP_S));
      return { direction, points: colourOf(contour.subarray(from, to), score.subarray(from, to)) };
    });
    const fits = fitCrossOvers(colours, turnMidi);
    pair.forEach((leg, k) =>
      out.push({
        ...leg,
        crossOvers: fits[k].map((cross) => ({ ...cross, timeS: timeAt(contour, leg, cross.midi) })),
      }),
    );
    i += pair.length;
  }
  return out;
}

/** What a take is that no voice made, in plain words with what to do; null where it may be one. Its pitch is still drawn. */
function notVoice(track: VoiceTrack, contour: Contour, task: Task, snrDb: number): Said | null {
  // One note may be asked for, and held very still.
  if (task !== 'sustain' && machineShare(contour) > NEARLY_ALL)
    return said('Only one pitch was heard, stiller than any voice: switch the drone or metronome off and sing.');
  return snrDb >= QUIET_ENOUGH_DB && whistleShare(track, contour) > NEARLY_ALL
    ? said('Only pure tones were heard, a whistle or a machine’s beeps: sing instead.')
    : null;
}

/** May anything be concluded from this take, and what should be done better next time. */
function judge(track: VoiceTrack, contour: Contour, struckShare: number): Quality {
  const sung: number[] = [];
  const quiet: number[] = [];
  let sinceSung = framesIn(10);
  for (let i = 0; i < track.frames; i++) {
    if (!Number.isNaN(contour[i])) {
      sung.push(track.levelDb[i]);
      sinceSung = 0;
    } else if (track.f0[i] === 0 && ++sinceSung > framesIn(0.15)) quiet.push(track.levelDb[i]);
  }
  const reasons: Said[] = [];
  const sungS = sung.length * HOP_S;
  const loud = quantile(track.levelDb, 0.98);
  let usable = true;
  if (loud < -62) {
    usable = false;
    reasons.push(said('The recording is silent: check that the right microphone is chosen and not muted.'));
  } else if (struckShare > MAX_STRUCK_SHARE) {
    usable = false;
    reasons.push(said('Only an instrument was heard: start singing after the reference note.'));
  } else if (sungS < MIN_SUNG_S) {
    usable = false;
    reasons.push(said('No singing was found: come closer to the microphone and record again.'));
  }
  const room = quiet.length > framesIn(0.1) ? median(quiet) : track.floorDb;
  const snrDb = sung.length ? Math.round((quantile(sung, 0.7) - room) * 10) / 10 : 0;
  const clipped = track.clippedShare > 0.0005;
  if (usable && snrDb < LEAST_SNR_DB) {
    usable = false;
    reasons.push(said('Nothing stands out of the room’s own noise: come closer to the microphone, turn fans off and record again.'));
  }
  if (usable && clipped) reasons.push(said('Parts are clipped: turn the input down a little or step back.'));
  if (usable && snrDb < 15) reasons.push(said('The room is loud next to the voice: soft notes and the change may be missed.'));
  return { clipped, snrDb, usable, reasons };
}

/** Every so many frames the parts of the colour are read for the profile. */
const PARTS_STRIDE = 2;

function noteProfile(track: VoiceTrack, contour: Contour, head: Float64Array, filter: Filter | null): NoteProfile[] {
  const sums = new Map<
    number,
    { n: number; level: number; clarity: number; jitter: number; head: number; heads: number; parts: [number, number][] }
  >();
  for (let i = 2; i + 2 < contour.length; i++) {
    const m = contour[i];
    if (Number.isNaN(m)) continue;
    const key = Math.round(m);
    const s = sums.get(key) ?? { n: 0, level: 0, clarity: 0, jitter: 0, head: 0, heads: 0, parts: [] };
    s.n++;
    s.level += track.levelDb[i];
    s.clarity += track.clarity[i];
    // Third difference: what is left when glide and vibrato are smooth.
    const unrest = Math.abs(contour[i + 2] - 3 * contour[i + 1] + 3 * m - contour[i - 1]);
    s.jitter += Number.isNaN(unrest) ? 0 : Math.min(100, unrest * 100);
    if (!Number.isNaN(head[i])) {
      s.head += head[i];
      s.heads++;
      const parts = i % PARTS_STRIDE === 0 ? timbreParts(track, i, filter) : null;
      if (parts) s.parts.push(parts);
    }
    sums.set(key, s);
  }
  return [...sums.entries()]
    .filter(([, s]) => s.n >= framesIn(0.04))
    .sort((a, b) => a[0] - b[0])
    .map(([midi, s]) => ({
      midi,
      seconds: s.n * HOP_S,
      levelDb: s.level / s.n,
      clarity: s.clarity / s.n,
      jitterCents: s.jitter / s.n,
      head: s.heads ? s.head / s.heads : NaN,
      slopeDb: s.parts.length ? round(median(s.parts.map(([slope]) => slope)), 2) : null,
      firstDb: s.parts.length ? round(median(s.parts.map(([, first]) => first)), 2) : null,
    }))
    .map((p) => ({ ...p, head: Number.isNaN(p.head) ? 0 : p.head }));
}

const round = (x: number, places: number) => Math.round(x * 10 ** places) / 10 ** places;

function traceOf(track: VoiceTrack, contour: Contour, head: Float64Array): Trace {
  const trace: Trace = { hopS: 2 * HOP_S, midi: [], levelDb: [], head: [] };
  for (let i = 0; i < track.frames; i += 2) {
    trace.midi.push(Number.isNaN(contour[i]) ? 0 : round(contour[i], 2));
    trace.levelDb.push(round(track.levelDb[i], 1));
    trace.head.push(Number.isNaN(head[i]) ? 0 : round(head[i], 2));
  }
  return trace;
}
