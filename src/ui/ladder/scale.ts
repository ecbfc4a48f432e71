import { VoiceMap } from '../../core/map/types';

/** The one vertical axis: MIDI notes `low` to `high` over `height` pixels, high notes at the top. */
export interface LadderScale {
  low: number;
  high: number;
  height: number;
  /** Centre of a (fractional) note, pixels from the top. */
  y(midi: number): number;
  /** Pixels per semitone. */
  rung: number;
  /** The note at a height. */
  midiAt(y: number): number;
}

export function ladderScale(low: number, high: number, height: number): LadderScale {
  const rung = height / (high - low + 1);
  return { low, high, height, rung, y: (midi) => (high - midi + 0.5) * rung, midiAt: (y) => high + 0.5 - y / rung };
}

const THINNEST_TARGET_PX = 8;
/** How thick what is meant is drawn under what is sung: nearly a rung. */
export const targetWidth = ({ rung }: LadderScale): number => Math.max(THINNEST_TARGET_PX, rung * 0.9);

/** Notes a ladder for this voice shows: its extremes with a margin, at least two octaves. */
export function ladderRange(
  map: VoiceMap | null,
  fallback: { low: number; high: number },
  more: number[] = [],
): { low: number; high: number } {
  const notes = [...(map?.extreme ? [map.extreme.low.midi, map.extreme.high.midi] : [fallback.low, fallback.high]), ...more];
  let low = Math.floor(Math.min(...notes)) - 2;
  let high = Math.ceil(Math.max(...notes)) + 2;
  while (high - low < 24) {
    low--;
    high++;
  }
  return { low, high };
}
