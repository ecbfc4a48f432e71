import { Count, Passaggio, PinName, VoiceMap, VoiceSummary } from './types';

/** A value of the map set by the coach's own hand. */
export interface Pin {
  what: PinName;
  midi: number;
}

type Change = VoiceSummary['passaggi'][number];

/** Which passaggio a pinned change stands for. */
const AT = { change: 0, 'second-change': 1 } as const;

const NONE: Count = { found: 0, of: 0 };
const NOT_FOUND: Omit<Passaggio, keyof Change> = {
  upMidi: null,
  downMidi: null,
  up: NONE,
  down: NONE,
  widthSt: 0,
  name: 'blended',
  vowels: [],
  votes: [],
};

/**
 * The map with the coach's pinned values in place of the pooled ones; `pinned` keeps what the machine says of each (null
 * where it says nothing). A pinned change moves the passaggio nearest in order, or stands for one that was not found.
 */
export function withPins(map: VoiceMap, pins: Pin[]): VoiceMap {
  const out: VoiceMap = { ...map, passaggi: withPinnedChanges(map.passaggi, pins, NOT_FOUND), pinned: {} };
  // In a fixed order: an end that stands alone is both ends.
  for (const { what, midi } of [...pins].sort((a, b) => a.what.localeCompare(b.what))) {
    if (what === 'usable-low' || what === 'usable-high') {
      const end = what === 'usable-low' ? 'low' : 'high';
      out.pinned[what] = map.usable?.[end].midi ?? null;
      const other = out.usable ?? (map.extreme ? { low: map.extreme.low, high: map.extreme.high } : null);
      const limit = { midi, takeIds: [] };
      out.usable = end === 'low' ? { low: limit, high: other?.high ?? limit } : { low: other?.low ?? limit, high: limit };
    } else if (what === 'speaking') {
      out.pinned[what] = map.speakingMidi;
      out.speakingMidi = midi;
    } else out.pinned[what] = map.passaggi[AT[what]]?.midi ?? null;
  }
  return out;
}

/** Changes, of a map or of its summary, with pinned ones in their places; one that wasn't found is made of `none`. */
export function withPinnedChanges<P extends Change>(passaggi: readonly P[], pins: readonly Pin[], none: Omit<P, keyof Change>): P[] {
  const out = [...passaggi];
  for (const [what, at] of Object.entries(AT)) {
    const pin = pins.find((p) => p.what === what);
    // A second change may only stand beside a first.
    if (pin && at <= out.length)
      out[at] = { ...none, ...out[at], midi: pin.midi, lowMidi: pin.midi, highMidi: pin.midi, confidence: 1, impression: false } as P;
  }
  return out;
}
