import { mapVoice } from '../../core/map/pool';
import { analyseTake } from '../../core/take/analyse';
import { klattSinger, synthesises } from './klatt';
import type { Draw } from './makers';
import { peopleSpeak, speakingSinger, TWO_SPEAKERS } from './speakers';

const SLIDES = 2;
/** How many of a maker are heard that flip or toggle, and that have no change at all. */
const CHANGING = 4;
const PLAIN = 2;

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

/** Only how noise weighs in blends was tuned on Praat's voices (on other singers of it), and nothing on the people's. */
describe.each([
  ['Praat’s synthesiser', synthesises, klattSinger, 9100],
  ['the pulses of people who were recorded', peopleSpeak, speakingSinger(TWO_SPEAKERS), 9200],
] as const)('in the sound of %s', (_, there, draw, first) => {
  (there ? test : test.skip)('flips and toggles are placed within a semitone, and none is invented', () => {
    for (const { trueMidi, midis } of heard(draw, first, (style) => style === 'flip' || style === 'toggle', CHANGING)) {
      expect(midis).toHaveLength(1);
      expect(Math.abs(midis[0] - trueMidi!)).toBeLessThan(1);
    }
    for (const { midis } of heard(draw, first, (style) => style === 'plain', PLAIN)) expect(midis).toEqual([]);
  });
});
