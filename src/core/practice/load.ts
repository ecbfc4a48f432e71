import { midiToHz } from '../music/pitch';
import { Trace } from '../take/types';
import { Load } from './types';

/**
 * Voice load of a take: time dose (seconds voiced) and cycle dose (oscillations of the folds, the integral of f0 over voiced
 * time): Titze, Svec & Popolo 2003, from memory.
 *
 * @param beltFrom the pitch (MIDI) from which it counts as belted; null: not at all
 */
export function loadOf({ midi, hopS }: Pick<Trace, 'midi' | 'hopS'>, beltFrom: number | null = null): Load {
  let voiced = 0;
  let belted = 0;
  let cycles = 0;
  for (const m of midi) {
    if (!(m > 0)) continue;
    voiced++;
    if (beltFrom !== null && m >= beltFrom) belted++;
    cycles += midiToHz(m) * hopS;
  }
  return { voicedS: voiced * hopS, cycles: Math.round(cycles), ...(belted > 0 ? { beltS: belted * hopS } : {}) };
}

export const addLoads = (loads: readonly (Load | null)[]): Load =>
  loads.reduce<Load>((sum, l) => (l ? { voicedS: sum.voicedS + l.voicedS, cycles: sum.cycles + l.cycles } : sum), {
    voicedS: 0,
    cycles: 0,
  });
