import { mapVoice } from '../../core/map/pool';
import { analyseTake } from '../../core/take/analyse';
import { klattSinger, synthesises } from './klatt';

const SLIDES = 2;
/** The first of 9100 on that flip or toggle, and that have no change at all; only how noise weighs in blends was tuned on this maker, on others of its singers. */
const CHANGING = 4;
const PLAIN = 2;

/** Singers of Praat's Klatt synthesiser in a dry room, and where their slides together say that the voice changes. */
function heard(of: (style: string) => boolean, count: number): { trueMidi: number | null; midis: number[] }[] {
  const out = [];
  for (let seed = 9100; out.length < count; seed++) {
    const { style, changeMidi, siren } = klattSinger(seed);
    if (!of(style)) continue;
    const takes = Array.from({ length: SLIDES }, (_, k) => ({
      takeId: String(k),
      findings: analyseTake(siren(k).pcm, 'siren').findings,
      marks: [],
    }));
    out.push({ trueMidi: changeMidi, midis: mapVoice(takes).passaggi.map((p) => p.midi) });
  }
  return out;
}

(synthesises ? test : test.skip)(
  'flips and toggles in the sound of another maker’s synthesiser are placed within a semitone, and none is invented',
  () => {
    for (const { trueMidi, midis } of heard((style) => style === 'flip' || style === 'toggle', CHANGING)) {
      expect(midis).toHaveLength(1);
      expect(Math.abs(midis[0] - trueMidi!)).toBeLessThan(1);
    }
    for (const { midis } of heard((style) => style === 'plain', PLAIN)) expect(midis).toEqual([]);
  },
);
