import { inEnglish } from '../format/say';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { foundInWords } from './found-in-words';

const english = (of: Parameters<typeof foundInWords>[0]) => foundInWords(of).map(inEnglish);

test('a siren tells its range and where it changes; what can’t be listened to tells why', () => {
  const { pcm } = sing(typicalProfile('tenor', 'flip'), { kind: 'siren' }, { seed: 3 });
  const { findings } = analyseTake(pcm, 'siren');
  const [range, changes] = english({ findings, error: null });
  expect(range).toMatch(/^[A-G][#b]?[23] to [A-G][#b]?5$/);
  expect(changes).toMatch(/^changes at [A-G][#b]?4/);
  const silence = analyseTake({ samples: new Float32Array(44100), sampleRate: 44100 }, 'siren').findings;
  expect(silence.quality.usable).toBe(false);
  expect(english({ findings: silence, error: null })).toHaveLength(1);
  expect(english({ findings: null, error: 'The file is damaged.' })).toEqual(['The file is damaged.']);
  expect(english({ findings: null, error: null })).toEqual(['could not be listened to']);
});

test('speech tells where the voice speaks, and nothing of a range', () => {
  const { pcm } = sing(typicalProfile('tenor', 'flip'), { kind: 'speech' }, { seed: 3 });
  const words = english({ findings: analyseTake(pcm, 'speech').findings, error: null });
  expect(words).toEqual([expect.stringMatching(/^speaks around [A-G]/)]);
});
