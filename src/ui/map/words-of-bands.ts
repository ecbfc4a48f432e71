import type { Passaggio } from '../../core/map/types';

/** What a sentence says of a band: from where to where it reaches, and in how many passes it was heard each way. */
export const ofBand = (p: Passaggio) => ({
  low: { note: p.lowMidi },
  high: { note: p.highMidi },
  up: p.up.found,
  upOf: p.up.of,
  down: p.down.found,
  downOf: p.down.of,
});
