import { said, Said } from '../words/said';
import { fitLine, median } from '../signal/stats';
import { Finding, Passaggio, PooledNote, VoiceWeight } from './types';

/** Signs of weight, each from -1 (light) to 1 (heavy), with what it counts. */
const PULLED = 0.6;
const NO_CHEST = -0.6;
/** A louder chest than head by this much across the change (dB, beyond the voice's own slope) is one. */
const STEP_DB = 6;
/** A change lies a semitone or two lower coming down in any voice, more in many: only from here on is chest held on to (common practice). */
const ORDINARY_HYSTERESIS_ST = 4;
const HELD_ON_ST = 3;
/** A smaller step of loudness is nothing. */
const LEAST_STEP_DB = 1.5;

/**
 * How heavy or light the coordination is, from what the voice does around its change: never from colour alone, which vowel,
 * room and microphone shift. Null when no change and no such finding is known.
 */
export function voiceWeight(findings: Finding[], passaggi: Passaggio[], notes: PooledNote[]): VoiceWeight | null {
  const signs: { lean: number; because: Said }[] = [];
  for (const f of findings) {
    if (f.name === 'pulled-chest') signs.push({ lean: PULLED, because: said('chest is pulled above where it usually hands over') });
    if (f.name === 'no-chest') signs.push({ lean: NO_CHEST, because: said('head is carried to the bottom') });
  }
  for (const p of passaggi) {
    const step = levelStep(notes, p.midi);
    if (step !== null && Math.abs(step) >= LEAST_STEP_DB)
      signs.push({
        lean: clamp(step / STEP_DB),
        because:
          step > 0
            ? said('at {note} chest outweighs head by {db} dB', { note: { note: p.midi }, db: Math.round(step) })
            : said('at {note} head outweighs chest by {db} dB', { note: { note: p.midi }, db: Math.round(-step) }),
      });
    if (p.upMidi !== null && p.downMidi !== null && p.upMidi - p.downMidi > ORDINARY_HYSTERESIS_ST)
      signs.push({
        lean: clamp((p.upMidi - p.downMidi - ORDINARY_HYSTERESIS_ST) / HELD_ON_ST),
        because: said('going up the change comes {by, number, ::.0} semitones later than coming down', { by: p.upMidi - p.downMidi }),
      });
  }
  if (signs.length === 0) return null;
  const lean = clamp(signs.reduce((s, x) => s + x.lean, 0) / Math.max(1.5, signs.length));
  const impression = [...findings, ...passaggi].every((f) => f.impression);
  return { lean, because: signs.map((x) => x.because), impression };
}

const clamp = (x: number) => Math.max(-1, Math.min(1, x));

/** Level just below a change over what the line above it foretells, dB; null when there are too few notes. */
function levelStep(notes: PooledNote[], midi: number): number | null {
  const above = notes.filter((n) => n.midi > midi + 1 && n.midi < midi + 10);
  const below = notes.filter((n) => n.midi < midi - 1 && n.midi > midi - 6);
  if (above.length < 4 || below.length < 3) return null;
  const { slope, intercept } = fitLine(
    above.map((n) => n.midi),
    above.map((n) => n.db),
  );
  return median(below.map((n) => n.db - intercept - slope * n.midi));
}
