import { HOP_S } from '../voice/types';
import { Contour, framesIn } from './contour';
import { confidenceOf, evidenceOf, Signs, Weighing } from './signs';
import { Source } from './source';
import { Direction, Leg, TakeEvent } from './types';
import { goesItsWay } from './way';

/** Lines through so many frames on each side of a moment, beginning so many frames away from it, tell a leap (20 to 180 ms). */
const LINE_FROM = 4;
const LINE_TO = 36;
const LEAST_LINE = 12;
/** Smaller ones are a voice's own unrest; larger ones are no leap of the register (published flips leap 2 to 6 semitones). */
const LEAP_ST = 0.35;
const LEAP_STEP_ST = 0.4;
const MOST_LEAP_UNITS = 5.5;
/** A leap of two pitches that both stand firm (so large a share of their frames lies on its line) counts further: it needs no other sign. */
const FIRM_SHARE = 0.75;
const MOST_FIRM_UNITS = 8;
const MOST_LEAP_ST = 8;
/** From here a leap is heard as one. */
const HEARD_LEAP_ST = 0.9;
/** Unrest of pitch: departure of the middle 80 ms from a parabola through 240 ms. */
const WOBBLE_REACH = 24;
const WOBBLE_CORE = 8;
/** Frames after a leg's beginning, and before the voice ends, that are looked through but not at: setting in and letting go move everything. */
const FROM_TURN = 16;
const TO_END = 28;
/** What lies so far under the voice of the last 0.2 s is its echo. */
const ECHO_DB = 7;
/** Every second frame (10 ms) is looked at. */
const STRIDE = 2;
/** Signs of one change fall within this time, and within so many semitones of a leg: two changes lie further apart (common practice). */
const SAME_MOMENT_S = 0.25;
const SAME_CHANGE_ST = 3;

/**
 * Weights by logistic regression on voices and rooms that are not this project's; units are the take's own scatter.
 * What an even voice does is said in `NEEDED`: so many nats a moment must bring.
 */
const WEIGHING: Weighing<'slope' | 'dip' | 'level' | 'wobble'> = {
  slope: { nats: 0.5, least: 0.6 },
  dip: { nats: 0.85, least: 0.35 },
  level: { nats: -1.2, least: 1 },
  wobble: { nats: 0.45, least: 0.01 },
};
const LEAP_NATS = 1.3;
/** Where the pitch meets the first formant the vowel turns all by itself: so near, so many nats more are needed. */
const TURN_ST = 2;
const TURN_NATS = 3;
const NEEDED = 7.5;

interface Moment {
  frame: number;
  dipDb: number;
  signs: Signs<keyof typeof WEIGHING>;
  /** Semitones leapt along the leg's direction, and whether both pitches stand firm. */
  leap: number;
  firm: boolean;
}

/** Everything audible that happens along the legs of a siren, in time order. */
export function sirenEvents(contour: Contour, levelDb: Float32Array, source: Source, legs: Leg[], turnMidi: number): TakeEvent[] {
  const moments = legs.map((leg) => momentsOf(contour, levelDb, source, leg));
  const evidence = evidenceOf(
    moments.map((of) => of.map((m) => m.signs)),
    WEIGHING,
    NEEDED,
  );
  const heard = legs.map((leg, l) => peaks(contour, source, moments[l], evidence[l], leg.direction, turnMidi));
  const found = legs.map((leg, l) => {
    const others = heard.flatMap((of, o) => (o === l ? [] : of.map(({ event }) => event)));
    if (others.length === 0) return heard[l];
    const known = evidence[l].map(
      (e, i) => e + (others.some((other) => sameChange(other, contour[moments[l][i].frame], leg.direction)) ? KNOWN_NATS : 0),
    );
    return peaks(contour, source, moments[l], known, leg.direction, turnMidi);
  });
  const apart = (a: TakeEvent, b: TakeEvent) => Math.abs(a.timeS - b.timeS) >= SAME_MOMENT_S;
  const inOneLeg = (a: TakeEvent, b: TakeEvent) => apart(a, b) && Math.abs(a.fromMidi - b.fromMidi) >= SAME_CHANGE_ST;
  return strongest(
    found.flatMap((of) => strongest(of, inOneLeg)),
    apart,
  )
    .map(({ event }) => event)
    .sort((a, b) => a.timeS - b.timeS);
}

interface Heard {
  evidence: number;
  event: TakeEvent;
}

/** Of events that can't both be, those with more evidence. */
function strongest(heard: Heard[], apart: (a: TakeEvent, b: TakeEvent) => boolean): Heard[] {
  const kept: Heard[] = [];
  for (const h of [...heard].sort((a, b) => b.evidence - a.evidence)) if (kept.every((k) => apart(k.event, h.event))) kept.push(h);
  return kept;
}

/** A change heard in one leg is looked for in the others, where it needs so much less to be heard. */
const KNOWN_NATS = 2;
const SAME_PLACE_ST = 1.5;
const [LEAST_HYSTERESIS_ST, MOST_HYSTERESIS_ST] = [0.3, 4.5];

/** Whether a pitch on a leg going one way is where a change of another leg would come again. */
function sameChange(other: TakeEvent, midi: number, direction: Direction): boolean {
  if (other.direction === direction) return Math.abs(other.fromMidi - midi) < SAME_PLACE_ST;
  const hysteresis = direction === 'up' ? midi - other.fromMidi : other.fromMidi - midi;
  return hysteresis > LEAST_HYSTERESIS_ST && hysteresis < MOST_HYSTERESIS_ST;
}

/** First time the leg passes a pitch. */
export function timeAt(contour: Contour, leg: Leg, midi: number): number {
  const end = Math.round(leg.endS / HOP_S);
  for (let i = Math.round(leg.startS / HOP_S); i < end; i++) {
    if (Number.isNaN(contour[i])) continue;
    if (leg.direction === 'up' ? contour[i] >= midi : contour[i] <= midi) return i * HOP_S;
  }
  return leg.endS;
}

/** The last frame from one on at which the voice still sounds. */
function voiceEnd(contour: Contour, levelDb: Float32Array, frame: number): number {
  let loud = -Infinity;
  for (let i = Math.max(0, frame - LINE_TO); i < Math.min(frame, contour.length); i++) loud = Math.max(loud, levelDb[i]);
  let last = frame;
  for (let i = frame; i < contour.length && i - last < FROM_TURN; i++)
    if (!Number.isNaN(contour[i]) && levelDb[i] > loud - ECHO_DB) last = i;
  return last;
}

const UNSEEN = { slope: NaN, levelDb: NaN, dipDb: NaN };

/** Every frame of a leg with what happens there, along its direction. */
function momentsOf(contour: Contour, levelDb: Float32Array, source: Source, leg: Leg): Moment[] {
  const along = leg.direction === 'up' ? 1 : -1;
  const out: Moment[] = [];
  const end = Math.min(Math.round(leg.endS / HOP_S), voiceEnd(contour, levelDb, Math.round(leg.endS / HOP_S)) - TO_END);
  for (let frame = Math.round(leg.startS / HOP_S) + FROM_TURN; frame < end; frame += STRIDE) {
    // Where noise leaves too few harmonics to compare, a leap is still one.
    const step = source.stepAt(frame) ?? UNSEEN;
    const before = lineAt(contour, frame, frame - LINE_TO + 1, frame - LINE_FROM + 1);
    const after = lineAt(contour, frame, frame + LINE_FROM, frame + LINE_TO);
    const signs = { slope: along * step.slope, dip: step.dipDb, level: along * step.levelDb, wobble: wobbleAt(contour, frame) };
    const leap = along * (after - before);
    const firm =
      Math.abs(leap) > HEARD_LEAP_ST &&
      onLine(contour, frame, frame - LINE_TO + 1, frame - LINE_FROM + 1) >= FIRM_SHARE &&
      onLine(contour, frame, frame + LINE_FROM, frame + LINE_TO) >= FIRM_SHARE;
    out.push({ frame, dipDb: step.dipDb, signs, leap, firm });
  }
  return out;
}

/** The moments of a leg where the evidence for a change outweighs the evidence against it, each the greatest of its surroundings. */
function peaks(contour: Contour, source: Source, moments: Moment[], ofSigns: number[], direction: Direction, turnMidi: number): Heard[] {
  const evidence = moments.map(({ frame, leap, firm }, i) => {
    const turns = Math.abs(contour[frame] - turnMidi) < TURN_ST;
    return ofSigns[i] + LEAP_NATS * leapUnits(leap, firm) - (turns ? TURN_NATS : 0);
  });
  const reach = framesIn(SAME_MOMENT_S / 2) / STRIDE;
  return moments.flatMap((m, i) => {
    if (evidence[i] < 0) return [];
    for (let k = Math.max(0, i - reach); k < Math.min(moments.length, i + reach); k++) if (evidence[k] > evidence[i]) return [];
    if (askedLeap(contour, m.frame) || slipping(contour, m.frame) || gradual(source, m, direction, evidence[i])) return [];
    const event = eventOf(contour, m, direction, evidence[i]);
    return borneOut(contour, event, m, direction) ? [{ evidence: evidence[i], event }] : [];
  });
}

/** How far the pitches right before and after a leap may differ from what the lines through both sides say. */
const SAME_LEAP_ST = 1;
const SAME_LEAP_SHARE = 0.5;

/**
 * Whether the pitches beside an event are sung, and are as far apart as its leap, and so is the way the voice goes on from the way it came: a
 * tracker that slips away and back, or hears for a moment what a room still holds of the pitches before, is neither.
 */
function borneOut(contour: Contour, { timeS, fromMidi, toMidi, kind }: TakeEvent, { leap }: Moment, direction: Direction): boolean {
  if (Number.isNaN(fromMidi + toMidi)) return false;
  if (kind !== 'flip' && kind !== 'crack') return true;
  const apart = toMidi - fromMidi;
  const along = direction === 'up' ? 1 : -1;
  if (Math.abs(along * apart - leap) > Math.max(SAME_LEAP_ST, SAME_LEAP_SHARE * Math.abs(leap))) return false;
  return !goesItsWay(contour, Math.round(timeS / HOP_S), apart);
}

const leapUnits = (leap: number, firm: boolean) =>
  leap < MOST_LEAP_ST ? Math.max(0, Math.min(firm ? MOST_FIRM_UNITS : MOST_LEAP_UNITS, (leap - LEAP_ST) / LEAP_STEP_ST)) : 0;

/**
 * Whether what changes here is colour that turns little by little, or the vowel's: no leap, no hitch, and too little evidence, or the series of
 * harmonics doesn't fall as a whole toward head (a formant's passing lifts some and lowers others), or a brief look sees too little of what a
 * longer one does.
 */
function gradual(source: Source, { frame, leap, dipDb, signs }: Moment, direction: Direction, evidence: number): boolean {
  if (leap >= HEARD_LEAP_ST || dipDb >= HEARD_DIP_DB) return false;
  if (evidence < COLOUR_ALONE || signs.level > -LEAST_FALL_DB) return true;
  if (dipDb >= HITCH_DB) return false;
  const brief = source.briefStepAt(frame);
  const along = direction === 'up' ? 1 : -1;
  const seen = Math.min((along * (brief?.slope ?? 0)) / signs.slope, (along * (brief?.levelDb ?? 0)) / signs.level);
  return !(seen > SEEN_AT_ONCE);
}

/** Under a heard hitch, so deep a one still tells what is sudden from what is gradual. */
const HITCH_DB = 1;
/** Colour alone must bring so many nats more, and all harmonics fall by so much toward head (tuned on three makers' voices in rooms and without). */
const COLOUR_ALONE = 2;
const LEAST_FALL_DB = 2;
const SEEN_AT_ONCE = 0.65;

/** Whether so much is sung over within 0.3 s that it must have been asked for: an octave leap, an arpeggio's step. */
function askedLeap(contour: Contour, frame: number): boolean {
  const reach = framesIn(0.15);
  const [before, after] = [pitchFrom(contour, frame - reach, 1), pitchFrom(contour, frame + reach, -1)];
  return Math.abs(after - before) > MOST_SUNG_OVER_ST;
}

/** A siren of two octaves a second with a leap of the register. */
const MOST_SUNG_OVER_ST = 9.5;

/** A tracker that can't tell a voice from its echo jumps so far, to and fro as often as this within 0.3 s on each side. */
const SLIP_ST = 0.6;
const SLIPS = 3;

/** Whether the pitch around a frame jumps to and fro: a voice leaps once. */
function slipping(contour: Contour, frame: number): boolean {
  const reach = framesIn(0.3);
  let last = NaN;
  let [ups, downs] = [0, 0];
  for (let i = Math.max(0, frame - reach); i < Math.min(contour.length, frame + reach); i++) {
    if (Number.isNaN(contour[i])) continue;
    if (contour[i] - last > SLIP_ST) ups++;
    if (last - contour[i] > SLIP_ST) downs++;
    last = contour[i];
  }
  return Math.min(ups, downs) >= SLIPS;
}

/** The first pitch from a frame on, going one way; NaN where none is near. */
function pitchFrom(contour: Contour, frame: number, step: 1 | -1): number {
  for (let k = 0; k < LINE_TO; k++) if (contour[frame + k * step] > 0) return contour[frame + k * step];
  return NaN;
}

function eventOf(contour: Contour, moment: Moment, direction: Direction, evidence: number): TakeEvent {
  const { dipDb, leap } = moment;
  const leapt = Math.abs(leap) >= HEARD_LEAP_ST && Math.abs(leap) < MOST_LEAP_ST;
  const frame = leapt ? leapFrame(contour, moment.frame, Math.sign(leap) * (direction === 'up' ? 1 : -1)) : moment.frame;
  const before = settledAt(contour, leapt ? frame - LEAP_BLUR : frame - HITCH, -1);
  const after = leapt ? settledAt(contour, frame + LEAP_BLUR, 1) : before;
  const kind = leapt ? (leap > 0 ? 'flip' : 'crack') : dipDb >= HEARD_DIP_DB ? 'dip' : 'timbre';
  return {
    timeS: frame * HOP_S,
    midi: before,
    fromMidi: before,
    toMidi: after,
    direction,
    kind,
    confidence: confidenceOf(evidence),
    dipDb: Math.max(0, dipDb || 0),
  };
}

/** Frames over which the tracker's window blurs a leap to each side; a hitch has begun so many frames before its middle. */
const LEAP_BLUR = 4;
const HITCH = 6;
const LEAP_SEARCH = 18;

/** Where near a frame the pitch moves fastest in a direction. */
function leapFrame(contour: Contour, frame: number, sign: number): number {
  let best = frame;
  let most = -Infinity;
  for (let i = frame - LEAP_SEARCH; i <= frame + LEAP_SEARCH; i++) {
    const moved = sign * (pitchFrom(contour, i + 3, 1) - pitchFrom(contour, i - 3, -1));
    if (moved > most) {
      most = moved;
      best = i;
    }
  }
  return best;
}

/** The pitch a voice had come to by a frame (step -1) or goes on from there (1): a line through 100 ms, read at its near end. */
function settledAt(contour: Contour, frame: number, step: 1 | -1): number {
  let near = frame;
  while (Math.abs(near - frame) < LINE_TO && !(contour[near] > 0)) near += step;
  const far = near + 19 * step;
  return lineAt(contour, near, Math.min(near, far), Math.max(near, far) + 1);
}

/** A hole from here on is heard as a hitch, beside the change of colour. */
export const HEARD_DIP_DB = 1.5;

/** Frames this far off a line, semitones, count half: slips of the tracker, not the voice's way. */
const OFF_LINE_ST = 0.4;
const LINE_PASSES = 3;

/**
 * A line through the pitch of frames `from` to `to`, read at `frame`, that lets go of what lies far off it (iteratively reweighted
 * least squares with Cauchy's weights); NaN where too little is sung.
 */
function lineAt(contour: Contour, frame: number, from: number, to: number): number {
  let at = 0;
  let slope = 0;
  for (let pass = 0; pass < LINE_PASSES; pass++) {
    let [n, sw, sx, sy, sxx, sxy] = NONE;
    for (let i = Math.max(0, from); i < Math.min(contour.length, to); i++) {
      const m = contour[i];
      if (Number.isNaN(m)) continue;
      const x = i - frame;
      const off = (m - at - slope * x) / OFF_LINE_ST;
      const w = pass === 0 ? 1 : 1 / (1 + off * off);
      n++;
      sw += w;
      sx += w * x;
      sy += w * m;
      sxx += w * x * x;
      sxy += w * x * m;
    }
    if (n < LEAST_LINE) return NaN;
    slope = (sxy - (sx * sy) / sw) / (sxx - (sx * sx) / sw);
    at = (sy - slope * sx) / sw;
  }
  return at;
}

/** Share of the frames `from` to `to` that are sung and lie on the line through them. */
function onLine(contour: Contour, frame: number, from: number, to: number): number {
  const at = lineAt(contour, frame, from, to);
  const slope = (lineAt(contour, frame + 10, from, to) - at) / 10;
  let near = 0;
  for (let i = Math.max(0, from); i < Math.min(contour.length, to); i++)
    if (Math.abs(contour[i] - at - slope * (i - frame)) < OFF_LINE_ST) near++;
  return near / (to - from);
}

/** Root mean square departure of the pitch around a frame from the parabola through its surroundings, semitones. */
function wobbleAt(contour: Contour, frame: number): number {
  // Sums of powers of x, and of their products with the pitch.
  let [n, x1, x2, x3, x4, y, xy, xxy] = NONE;
  const from = Math.max(0, frame - WOBBLE_REACH);
  const to = Math.min(contour.length - 1, frame + WOBBLE_REACH);
  for (let i = from; i <= to; i++) {
    const m = contour[i];
    if (!(m > 0)) continue;
    const d = i - frame;
    n++;
    x1 += d;
    x2 += d * d;
    x3 += d * d * d;
    x4 += d * d * d * d;
    y += m;
    xy += d * m;
    xxy += d * d * m;
  }
  if (n < 2 * LEAST_LINE) return NaN;
  const all = determinant(n, x1, x2, x1, x2, x3, x2, x3, x4);
  const a = determinant(y, x1, x2, xy, x2, x3, xxy, x3, x4) / all;
  const b = determinant(n, y, x2, x1, xy, x3, x2, xxy, x4) / all;
  const c = determinant(n, x1, y, x1, x2, xy, x2, x3, xxy) / all;
  let sum = 0;
  let inner = 0;
  for (let i = Math.max(0, frame - WOBBLE_CORE); i <= Math.min(contour.length - 1, frame + WOBBLE_CORE); i++) {
    const m = contour[i];
    if (!(m > 0)) continue;
    const d = i - frame;
    sum += (m - a - b * d - c * d * d) ** 2;
    inner++;
  }
  return inner > WOBBLE_CORE / 2 ? Math.sqrt(sum / inner) : NaN;
}

const NONE = [0, 0, 0, 0, 0, 0, 0, 0];

/** Of a 3 by 3 matrix, row by row. */
const determinant = (a: number, b: number, c: number, d: number, e: number, f: number, g: number, h: number, i: number) =>
  a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
