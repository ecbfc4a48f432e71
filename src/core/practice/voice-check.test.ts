import { keysFor } from '../exercise/keys';
import { exerciseById } from '../exercise/shelf';
import { typicalProfile } from '../sim/typical';
import { sing } from '../sim/sing';
import { analyseTake } from '../take/analyse';
import { gaussian, seededRandom } from '../signal/stats';
import type { Pcm } from '../voice/types';
import { lowered } from '../plan/today';
import { Checked, checkedIn, markerNote, PartHeard } from './voice-check';

const RATE = 22050;
const profile = typicalProfile('mezzo', 'blend');
const ANCHORS = { low: 57, high: 79, change: 69, speaking: 62 };
const MARKER = markerNote(ANCHORS, false);

/** The soft note as a tired voice gives it: air first, then an airy tone. */
function withAir({ samples, sampleRate }: Pcm, seconds: number): Pcm {
  const normal = gaussian(seededRandom(3));
  const begins = samples.findIndex((s) => Math.abs(s) > 0.02);
  const out = samples.slice();
  for (let i = Math.max(0, begins - Math.round(seconds * sampleRate)); i < begins; i++) out[i] += 0.02 * normal();
  return { samples: out, sampleRate };
}

const heard = (pcm: Pcm, task: 'speech' | 'sustain' | 'siren'): PartHeard => {
  const { findings, trace } = analyseTake(pcm, task);
  return { findings, trace };
};
const sung = (breathiness: number, airS: number, seed: number) => {
  const as = { ...profile, breathiness };
  const of = { seed, sampleRate: RATE, vowel: 'ah' as const, snrDb: 50 };
  return checkedIn(
    {
      count: heard(sing(as, { kind: 'speech', words: 6 }, of).pcm, 'speech'),
      marker: heard(withAir(sing(as, { kind: 'sustain', midi: MARKER, seconds: 2.5 }, of).pcm, airS), 'sustain'),
      siren: heard(sing(as, { kind: 'siren', legS: 2.2 }, of).pcm, 'siren'),
    },
    MARKER,
  );
};

test('the soft note lies a little over the change; where the top is spared, near where it speaks', () => {
  expect(MARKER).toBe(73);
  expect(markerNote(ANCHORS, true)).toBe(69);
  expect(markerNote({ ...ANCHORS, high: 72 }, false)).toBe(69);
});

describe('a fresh voice and a tired one, simulated', () => {
  const fresh = sung(0.15, 0, 1);
  const tired = sung(0.9, 0.25, 2);
  const both = (id: keyof Checked) => [fresh.checked[id]!, tired.checked[id]!];

  test('everything is read from a whole check', () => {
    expect(fresh.sounded).toBe(true);
    expect(Object.keys(fresh.checked).sort()).toEqual(['airy', 'breaks', 'late', 'loud', 'speaks', 'top', 'unsteady']);
    expect(Math.abs(fresh.checked.speaks! - profile.speakingMidi)).toBeLessThan(2);
    expect(Math.abs(fresh.checked.top! - profile.highMidi)).toBeLessThan(1.5);
  });
  test('air before the note is measured, within 50 ms', () => {
    const [without, withIt] = both('late');
    expect(without).toBeLessThan(0.12);
    expect(Math.abs(withIt - without - 0.25)).toBeLessThan(0.05);
  });
  test('an airy note is less clear', () => {
    const [clear, airy] = both('airy');
    expect(airy).toBeLessThan(clear - 3);
  });
});

test('another note than the one asked for, or none, is told', () => {
  const of = { seed: 4, sampleRate: RATE, snrDb: 50 };
  const other = heard(sing(profile, { kind: 'sustain', midi: MARKER - 5, seconds: 2 }, of).pcm, 'sustain');
  expect(checkedIn({ marker: other }, MARKER)).toEqual({ checked: {}, sounded: false });
  const silence = heard({ samples: new Float32Array(RATE), sampleRate: RATE }, 'sustain');
  expect(checkedIn({ marker: silence }, MARKER)).toEqual({ checked: {}, sounded: false });
  expect(checkedIn({}, MARKER)).toEqual({ checked: {}, sounded: null });
});

test('keys come down only where they reach above the change, and never under the voice', () => {
  const low = exerciseById('five-note-warm-up');
  const high = exerciseById('octave-arpeggio');
  const keys = keysFor(low, ANCHORS);
  expect(lowered(low, keys, 3, ANCHORS)).toEqual(keys);
  const over = keysFor(high, ANCHORS);
  expect(lowered(high, over, 2, ANCHORS)).toEqual(over.map((k) => k - 2));
  expect(lowered(high, [58], 2, ANCHORS)).toEqual([]);
  expect(lowered(high, over, 0, ANCHORS)).toEqual(over);
});
