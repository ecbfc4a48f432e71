import { Passaggio, PinName, VoiceMap } from './types';

/** A value of the map set by the coach's own hand. */
export interface Pin {
  what: PinName;
  midi: number;
}

/**
 * The map with the coach's pinned values in place of the pooled ones; `pinned` keeps what the machine says of each (null
 * where it says nothing). A pinned change moves the passaggio nearest in order, or stands for one that was not found.
 */
export function withPins(map: VoiceMap, pins: Pin[]): VoiceMap {
  const out: VoiceMap = { ...map, passaggi: [...map.passaggi], pinned: {} };
  // In a fixed order: the second change may only stand beside a first.
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
    } else {
      const at = what === 'change' ? 0 : 1;
      const found = map.passaggi[at];
      out.pinned[what] = found?.midi ?? null;
      if (at <= out.passaggi.length) out.passaggi[at] = pinnedPassaggio(found, midi);
    }
  }
  return out;
}

function pinnedPassaggio(found: Passaggio | undefined, midi: number): Passaggio {
  const certain = { midi, lowMidi: midi, highMidi: midi, confidence: 1 };
  if (found) return { ...found, ...certain };
  const none = { found: 0, of: 0 };
  return { ...certain, upMidi: null, downMidi: null, up: none, down: none, widthSt: 0, name: 'blended', votes: [] };
}
