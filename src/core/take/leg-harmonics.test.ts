import { midiToHz } from '../music/pitch';
import { additiveTone } from '../sim/tones';
import { trackVoice } from '../voice/track';
import { contourOf } from './contour';
import { legHarmonics } from './leg-harmonics';

test('a slide of sinusoids gives back what was put in at each pitch', () => {
  const pcm = additiveTone({
    seconds: 4,
    sampleRate: 44100,
    hz: (t) => midiToHz(50 + 6 * t),
    amplitude: (k) => k ** -1.5 * (k === 3 ? 0.5 : 1),
    snrDb: 60,
  });
  const track = trackVoice(pcm);
  const harmonics = legHarmonics(track, contourOf(track), { startS: 0.5, endS: 4.2 });
  expect(harmonics.length).toBeGreaterThan(25);
  for (const { midi, db } of harmonics) {
    expect(midi % 0.75).toBeCloseTo(0, 9);
    for (const k of [2, 3, 4, 5]) {
      const wanted = -30 * Math.log10(k) - (k === 3 ? 6.02 : 0);
      expect(Math.abs(db[k - 1]! - db[0]! - wanted)).toBeLessThan(1);
    }
    // Nothing is told of what lies above 5.5 kHz.
    db.forEach((level, i) => (i + 1) * midiToHz(midi + 0.4) > 5500 && (i + 1) * midiToHz(midi - 0.4) > 5500 && expect(level).toBeNull());
  }
});
