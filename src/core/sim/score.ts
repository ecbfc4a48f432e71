import type { KeyInTime } from '../exercise/render';
import { degreeToSemitones } from '../music/scale';
import { gaussian } from '../signal/stats';
import { Crossing, SingerProfile, TakeTruth } from './profile';

/** Control frames are 5 ms apart. */
export const CONTROL_S = 0.005;

/** What the singer is asked to do. Durations in seconds. */
export type SimTask =
  | { kind: 'siren'; bottomMidi?: number; topMidi?: number; legS?: number; sirens?: number }
  | { kind: 'pattern'; degrees: number[]; tonics: number[]; noteS?: number; breathS?: number }
  /** `head` makes the note in that share of head, whatever the voice would do there. */
  | { kind: 'sustain'; midi: number; seconds?: number; head?: number }
  | { kind: 'speech'; words?: number }
  /** An exercise as the follow-along lays it out; `mistake`: sung wrong in one way throughout. */
  | { kind: 'exercise'; keys: readonly KeyInTime[]; mistake?: Mistake };

/** Ways of singing an exercise wrong that are no matter of register. */
export const MISTAKES = ['wrong note', 'flat', 'droned', 'faded', 'stopped'] as const;
export type Mistake = (typeof MISTAKES)[number];

/** The performance as control curves, one value per CONTROL_S. */
export interface Performance {
  midi: Float64Array;
  /** Linear gain, 0 silent. */
  gain: Float64Array;
  /** 0 chest to 1 head. */
  head: Float64Array;
  /** Roughness 0..1: strained or breaking. */
  rough: Float64Array;
  truth: TakeTruth;
}

interface Draft {
  midi: number[];
  gain: number[];
  head: number[];
  rough: number[];
  truth: TakeTruth;
}

const SILENCE_S = 0.35;

/** Turn a task into a performance by this singer, with this day's scatter from `random`. */
export function perform(profile: SingerProfile, task: SimTask, random: () => number): Performance {
  const normal = gaussian(random);
  const draft: Draft = {
    midi: [],
    gain: [],
    head: [],
    rough: [],
    truth: { events: [], lowestMidi: Infinity, highestMidi: -Infinity, f0: new Float32Array(0), notes: [] },
  };
  rest(draft, SILENCE_S);
  if (task.kind === 'siren') {
    const ceiling = topOf(profile);
    for (let s = 0; s < (task.sirens ?? 1); s++) {
      const bottom = Math.max(profile.lowMidi, task.bottomMidi ?? profile.lowMidi) + Math.abs(normal()) * 0.2;
      const top = Math.min(ceiling, task.topMidi ?? ceiling) - Math.abs(normal()) * 0.25;
      const legS = task.legS ?? 3.2;
      glide(draft, profile, bottom, top, legS, normal);
      glide(draft, profile, top, bottom, legS, normal);
      rest(draft, 0.7);
    }
  } else if (task.kind === 'pattern') {
    for (const tonic of task.tonics) {
      for (const degree of task.degrees) note(draft, profile, tonic + degreeToSemitones(degree), task.noteS ?? 0.35, normal);
      release(draft);
      rest(draft, task.breathS ?? 0.6);
    }
  } else if (task.kind === 'sustain') {
    note(draft, profile, task.midi, task.seconds ?? 3, normal, task.head);
    release(draft);
  } else if (task.kind === 'exercise') {
    for (const key of task.keys) exerciseKey(draft, profile, key, task.mistake, random, normal);
  } else {
    for (let w = 0; w < (task.words ?? 10); w++) {
      const start = profile.speakingMidi + 1.2 * normal();
      const n = Math.round((0.28 + 0.1 * random()) / CONTROL_S);
      for (let i = 0; i < n; i++) push(draft, start + 1 - (3 * i) / n, 0.5 * Math.sin((Math.PI * i) / n), 0, 0);
      rest(draft, 0.15);
    }
  }
  rest(draft, SILENCE_S);
  vibratoAndDrift(draft, profile, random, normal);
  return finish(draft);
}

const WRONG_BY_ST = 1;
const FADED_BY_DB = 24;
/** A fade begins after this share of a key. */
const FADES_FROM = 0.25;
const HOLE_S = 0.3;
/** A singer comes in this late after the piano, give or take. */
const LAG_S = 0.08;

/** One key of an exercise: its chord is listened to, its notes are sung, and the breath before the next is taken. */
function exerciseKey(
  draft: Draft,
  profile: SingerProfile,
  { notes, totalS }: KeyInTime,
  mistake: Mistake | undefined,
  random: () => number,
  normal: () => number,
): void {
  const begins = draft.midi.length;
  rest(draft, Math.max(0, notes[0].startS + LAG_S + 0.02 * normal()));
  const wrong = Math.floor(random() * notes.length);
  const wrongBy = random() < 0.5 ? -WRONG_BY_ST : WRONG_BY_ST;
  const pitch = notes.map(({ midi }, i) => {
    if (mistake === 'droned') return notes[0].midi;
    return midi + (mistake === 'flat' ? -WRONG_BY_ST : mistake === 'wrong note' && i === wrong ? wrongBy : 0);
  });
  const sung = draft.midi.length;
  notes.forEach((n, i) => {
    const next = notes[i + 1];
    const seconds = n.endS - n.startS;
    if (n.slide && next && pitch[i] !== pitch[i + 1]) {
      const until = draft.midi.length + Math.round(seconds / CONTROL_S);
      glide(draft, profile, pitch[i], pitch[i + 1], seconds, normal, false);
      // Who has leapt arrives early, and waits.
      const last = draft.midi.length - 1;
      while (draft.midi.length < until) push(draft, draft.midi[last], draft.gain[last], draft.head[last], 0);
    } else note(draft, profile, pitch[i], seconds - (next ? 0 : LAG_S), normal);
  });
  const frames = draft.midi.length - sung;
  if (mistake === 'faded')
    for (let i = 0; i < frames; i++)
      draft.gain[sung + i] *= 10 ** ((-FADED_BY_DB * Math.max(0, (i / frames - FADES_FROM) / (1 - FADES_FROM))) / 20);
  if (mistake === 'stopped') {
    const from = sung + Math.floor(frames * (0.35 + 0.3 * random()));
    const goesOn = random() < 0.5 ? from + HOLE_S / CONTROL_S : Infinity;
    for (let i = from; i < Math.min(draft.midi.length, goesOn); i++) draft.gain[i] = 0;
  }
  release(draft);
  rest(draft, totalS - (draft.midi.length - begins) * CONTROL_S);
}

/** A voice that pulls chest up stops short of its range: about five semitones above the change. */
function topOf(profile: SingerProfile): number {
  const pulled = profile.crossings.find((c) => c.style === 'pulled');
  return pulled ? Math.min(profile.highMidi, pulled.upMidi + 5) : profile.highMidi;
}

/** How much head a voice uses at a pitch, away from any sudden event. */
function headAt(crossings: { place: number; crossing: Crossing }[], midi: number): number {
  if (crossings.length === 0) return 0;
  let head = 0;
  for (const { place, crossing } of crossings) {
    const share = 1 / crossings.length;
    if (crossing.style === 'no-chest') head += share;
    else if (crossing.style === 'pulled') head += 0;
    else if (crossing.style === 'blend') head += share / (1 + Math.exp((-4.394 * (midi - place)) / (crossing.widthSt ?? 7)));
    else head += midi > place ? share : 0;
  }
  return head;
}

function gainAt(profile: SingerProfile, midi: number, head: number): number {
  const position = (midi - profile.lowMidi) / Math.max(1, profile.highMidi - profile.lowMidi);
  const noChest = profile.crossings.find((c) => c.style === 'no-chest');
  const pulled = profile.crossings.find((c) => c.style === 'pulled');
  let db = -16 + 10 * Math.min(1, Math.max(-0.1, position)) - 3 * head;
  if (noChest && midi < noChest.upMidi) db -= 1.3 * (noChest.upMidi - midi);
  if (pulled && midi > pulled.upMidi) db += 1.2 * (midi - pulled.upMidi);
  return 10 ** (db / 20);
}

/** @param ends whether the voice is let go at the end of a way down */
function glide(draft: Draft, profile: SingerProfile, from: number, to: number, seconds: number, normal: () => number, ends = true) {
  const up = to > from;
  const scattered = profile.crossings.map((crossing) => ({
    place: (up ? crossing.upMidi : crossing.downMidi) + profile.scatterSt * normal(),
    crossing,
  }));
  const order = up ? scattered : [...scattered].reverse();
  const sudden = order.filter(
    (o) =>
      (o.crossing.style === 'flip' || o.crossing.style === 'toggle') &&
      (up ? o.place > from + 1 && o.place < to - 1 : o.place < from - 1 && o.place > to + 1),
  );
  const frames = Math.round(seconds / CONTROL_S);
  // A way that goes on from another has no onset of its own.
  const joined = draft.gain[draft.gain.length - 1] > 0;
  let skipped = 0; // semitones leapt over
  let next = 0;
  let sinceEvent = 1e9;
  let dip = 0;
  for (let i = 0; i < frames; i++) {
    // Steady in the middle, eased at both ends.
    const u = i / (frames - 1);
    const ease = u - Math.sin(2 * Math.PI * u) * 0.09;
    let midi = from + (to - from) * ease + (up ? skipped : -skipped);
    const waiting = sudden[next];
    if (waiting) {
      const leap = waiting.crossing.style === 'flip' ? (waiting.crossing.leapSt ?? 3) : 0;
      // A change lies where the voice was last before it.
      const trigger = up ? midi >= waiting.place : midi <= waiting.place;
      if (trigger) {
        draft.truth.events.push({
          timeS: draft.midi.length * CONTROL_S,
          midi: waiting.place,
          direction: up ? 'up' : 'down',
          kind: leap ? 'flip' : 'timbre',
        });
        skipped += leap;
        next++;
        sinceEvent = 0;
        dip = leap ? 14 : 5;
      }
    }
    midi = from + (to - from) * ease + (up ? skipped : -skipped);
    if (up ? midi > to : midi < to) break;
    // The timbre steps with the event itself, within about 40 ms.
    const done = sudden.slice(0, next).map((s) => s.crossing);
    const places = scattered.map((s) => {
      const isSudden = sudden.includes(s);
      if (!isSudden) return s;
      return { ...s, place: done.includes(s.crossing) === up ? -Infinity : Infinity };
    });
    const head = headAt(places, midi);
    const dipGain = 10 ** ((-dip * Math.exp(-((sinceEvent * CONTROL_S) / 0.035))) / 20);
    const edge = (joined ? 1 : Math.min(1, i / 16)) * (up || !ends ? 1 : Math.min(1, (frames - 1 - i) / 16));
    const pulled = profile.crossings.find((c) => c.style === 'pulled');
    const strain = pulled ? Math.max(0, Math.min(1, (midi - pulled.upMidi) / 5)) : 0;
    push(draft, midi, gainAt(profile, midi, head) * dipGain * edge, head, Math.max(strain * 0.6, sinceEvent < 6 ? 0.5 : 0));
    sinceEvent++;
  }
}

const isSudden = ({ style }: Crossing) => style === 'flip' || style === 'toggle';

/** A hitch lies so long after the step begins, is about so long, and so deep (toggle, flip), dB; a flip settles in so long. */
const HITCH_S = 0.03;
const HITCH_LONG_S = 0.03;
const HITCH_DB = [3, 8] as const;
const SETTLE_S = 0.085;

const hitch = (t: number, flips: boolean) => 10 ** ((-HITCH_DB[flips ? 1 : 0] * Math.exp(-0.5 * ((t - HITCH_S) / HITCH_LONG_S) ** 2)) / 20);

function note(draft: Draft, profile: SingerProfile, midi: number, seconds: number, normal: () => number, asked?: number) {
  const frames = Math.round(seconds / CONTROL_S);
  const previous = draft.gain[draft.gain.length - 1] > 0 ? draft.midi[draft.midi.length - 1] : midi;
  const up = midi >= previous;
  const places = profile.crossings.map((crossing) => ({ place: up ? crossing.upMidi : crossing.downMidi, crossing }));
  const head = asked ?? headAt(places, midi);
  const off = 0.12 * normal();
  const startS = draft.midi.length * CONTROL_S;
  // Stepping over a sudden change the voice hitches, and a flip overshoots its note before it settles.
  const crossed =
    asked === undefined ? places.find(({ place, crossing }) => isSudden(crossing) && previous <= place !== midi <= place) : undefined;
  const leap = crossed?.crossing.style === 'flip' ? (up ? 0.5 : -0.5) * (crossed.crossing.leapSt ?? 3) : 0;
  if (crossed)
    draft.truth.events.push({ timeS: startS + HITCH_S, midi: previous, direction: up ? 'up' : 'down', kind: leap ? 'flip' : 'timbre' });
  for (let i = 0; i < frames; i++) {
    const arrive = Math.min(1, i / 9);
    const onset = draft.gain[draft.gain.length - 1] > 0 ? 1 : 0;
    const attack = onset ? 1 : Math.min(1, i / 8);
    push(
      draft,
      previous + (midi + off - previous) * (0.5 - 0.5 * Math.cos(Math.PI * arrive)) + leap * arrive * Math.exp((-i * CONTROL_S) / SETTLE_S),
      gainAt(profile, midi, head) * Math.max(0.02, attack) * (crossed ? hitch(i * CONTROL_S, leap !== 0) : 1),
      head,
      0,
    );
  }
  draft.truth.notes.push({ startS, endS: draft.midi.length * CONTROL_S, midi });
}

function release(draft: Draft) {
  const last = draft.midi.length - 1;
  const gain = draft.gain[last];
  for (let i = 1; i <= 12; i++) push(draft, draft.midi[last], gain * (1 - i / 12.5), draft.head[last], 0);
}

function rest(draft: Draft, seconds: number) {
  for (let i = 0; i < Math.round(seconds / CONTROL_S); i++) push(draft, draft.midi[draft.midi.length - 1] ?? 60, 0, 0, 0);
}

function push(draft: Draft, midi: number, gain: number, head: number, rough: number) {
  draft.midi.push(midi);
  draft.gain.push(gain);
  draft.head.push(head);
  draft.rough.push(rough);
  if (gain > 0.01) {
    draft.truth.lowestMidi = Math.min(draft.truth.lowestMidi, midi);
    draft.truth.highestMidi = Math.max(draft.truth.highestMidi, midi);
  }
}

/** Vibrato on held pitches, slow drift and fine jitter everywhere: no voice stands still. */
function vibratoAndDrift(draft: Draft, profile: SingerProfile, random: () => number, normal: () => number) {
  let drift = 0;
  let held = 0;
  let previous = draft.midi[0];
  const phase = 2 * Math.PI * random();
  for (let i = 0; i < draft.midi.length; i++) {
    drift += 0.03 * (0.08 * normal() - drift) + 0.006 * normal();
    const moving = Math.abs(draft.midi[i] - previous) > 0.01;
    previous = draft.midi[i];
    held = moving || draft.gain[i] === 0 ? 0 : held + CONTROL_S;
    const depth = (profile.vibrato.cents / 100) * Math.min(1, Math.max(0, (held - 0.25) / 0.3));
    draft.midi[i] +=
      drift + depth * Math.sin(phase + 2 * Math.PI * profile.vibrato.rateHz * i * CONTROL_S) + (0.02 + 0.25 * draft.rough[i]) * normal();
  }
}

function finish(draft: Draft): Performance {
  const f0 = Float32Array.from(draft.midi, (m, i) => (draft.gain[i] > 0.005 ? 440 * 2 ** ((m - 69) / 12) : 0));
  return {
    midi: Float64Array.from(draft.midi),
    gain: Float64Array.from(draft.gain),
    head: Float64Array.from(draft.head),
    rough: Float64Array.from(draft.rough),
    truth: { ...draft.truth, f0 },
  };
}
