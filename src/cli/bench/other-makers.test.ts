import { mapVoice } from '../../core/map/pool';
import { analyseTake } from '../../core/take/analyse';
import { klattSinger } from './klatt';
import type { Draw } from './makers';
import { praatIsThere } from './praat';
import { peopleSpeak, speakingSinger, TWO_SPEAKERS } from './speakers';

const SLIDES = 2;
/** Singers of a maker in a dry room, and where their slides together say that the voice changes. */
function heard(draw: Draw, first: number, of: (style: string) => boolean, count: number): { trueMidi: number | null; midis: number[] }[] {
  const out = [];
  for (let seed = first; out.length < count; seed++) {
    const { style, changeMidi, siren } = draw(seed);
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

/**
 * From which seed on, and how many are heard that flip or toggle, and that have no change at all. Of what is tested here nothing was
 * tuned on these makers: only how blends are looked for (on other singers of theirs).
 */
describe.each([
  ['Praat’s synthesiser', praatIsThere, klattSinger, { first: 9100, changing: 4, plain: 2 }],
  ['the pulses of people who were recorded', peopleSpeak, speakingSinger(TWO_SPEAKERS), { first: 9200, changing: 3, plain: 1 }],
] as const)('in the sound of %s', (_, there, draw, { first, changing, plain }) => {
  (there ? test : test.skip)('flips and toggles are placed within a semitone, and none is invented', () => {
    for (const { trueMidi, midis } of heard(draw, first, (style) => style === 'flip' || style === 'toggle', changing)) {
      expect(midis).toHaveLength(1);
      expect(Math.abs(midis[0] - trueMidi!)).toBeLessThan(1);
    }
    for (const { midis } of heard(draw, first, (style) => style === 'plain', plain)) expect(midis).toEqual([]);
  });
});
