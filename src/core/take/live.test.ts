import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { hzToMidi } from '../music/pitch';
import { median } from '../signal/stats';
import { createLiveEar } from './live';

const RATE = 44100;
const profile = typicalProfile('tenor', 'flip');
const [{ upMidi }] = profile.crossings;

/** Scores a live take gives under and over the change, two semitones clear of it, on the way up. */
function sides(ear: ReturnType<typeof createLiveEar>, seed: number) {
  const { pcm } = sing(profile, { kind: 'siren', legS: 2.5 }, { seed, sampleRate: RATE, snrDb: 50 });
  ear.begin('ah', null);
  const moments = [];
  for (let at = 0; at < pcm.samples.length; at += 1024) moments.push(...ear.push(pcm.samples.subarray(at, at + 1024)));
  const known = moments.slice(0, moments.length / 2).filter((m) => m.hz > 0 && !Number.isNaN(m.head));
  const scores = (keep: (midi: number) => boolean) => known.filter((m) => keep(hzToMidi(m.hz))).map((m) => m.head);
  return { under: scores((m) => m < upMidi - 2), over: scores((m) => m > upMidi + 2), sung: moments.filter((m) => m.hz > 0).length };
}

test('a voice that flips shows its two sides while it sings, the second take on a vowel as well as the first', () => {
  const ear = createLiveEar(RATE);
  for (const seed of [1, 2, 3]) {
    const { under, over, sung } = sides(ear, seed);
    expect(under.length + over.length).toBeGreaterThan(0.2 * sung);
    // A full change is worth 2.5 on this axis.
    expect(median(over) - median(under)).toBeGreaterThan(1.2);
  }
});
