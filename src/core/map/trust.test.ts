import { inEnglish } from '../format/say';
import { said } from '../words/said';
import { mapVoice } from './pool';
import { Trust, weightOf, withTrust } from './trust';
import type { Finding, Passaggio, VoiceMap, Vote } from './types';

const vote = (source: Vote['source']): Vote => ({
  takeId: 't',
  leg: 0,
  timeS: 1,
  midi: 64,
  direction: 'up',
  kind: 'timbre',
  widthSt: 1,
  weight: 1,
  source,
});
const passaggio = (midi: number, name: Passaggio['name'], votes: Vote[]): Passaggio => ({
  midi,
  lowMidi: midi - 1,
  highMidi: midi + 1,
  upMidi: midi,
  downMidi: midi,
  up: { found: 1, of: 1 },
  down: { found: 1, of: 1 },
  widthSt: 1,
  name,
  confidence: 0.8,
  impression: false,
  vowels: [],
  votes,
});
const finding = (name: Finding['name'], midi: number): Finding => ({
  name,
  midi,
  confidence: 0.8,
  because: said('Heard at {note}.', { note: { note: midi } }),
  impression: false,
  takeIds: ['t'],
});
const map: VoiceMap = {
  ...mapVoice([]),
  passaggi: [
    passaggio(64, 'toggle', [vote('machine')]),
    passaggio(70, 'flip', [vote('machine')]),
    passaggio(76, 'toggle', [vote('machine'), vote('coach')]),
  ],
  findings: [finding('toggle', 64), finding('flip', 70), finding('toggle', 76), finding('pulled-chest', 66)],
};
const trust: Trust = { toggle: { asked: 20, there: 5 } };

test('the machine is believed to begin with, loses by every change nobody else hears, and never gains beyond that', () => {
  expect(weightOf({}, 'flip')).toBe(1);
  expect(weightOf({ flip: { asked: 15, there: 5 } }, 'flip')).toBe(0.6);
  for (let asked = 0; asked < 40; asked++) {
    const weights = Array.from({ length: asked + 1 }, (_, there) => weightOf({ flip: { asked, there } }, 'flip'));
    expect(weights).toEqual([...weights].sort((a, b) => a - b));
    expect(weights.at(-1)).toBe(1);
    expect(weights[0]).toBeGreaterThan(0);
  }
});

test('what the machine alone hears of a kind weighs as much as the studio’s ears bear it out, and it is said; all else is as it was', () => {
  const { passaggi, findings } = withTrust(map, trust);
  expect(passaggi.map((p) => p.confidence)).toEqual([0.8 * (15 / 30), 0.8, 0.8]);
  expect(findings.map((f) => f.confidence)).toEqual([0.8 * (15 / 30), 0.8, 0.8, 0.8]);
  expect(findings.map((f) => inEnglish(f.because))).toEqual([
    'Heard at E4. Heard blind, you found 5 of 20 such changes.',
    'Heard at A#4.',
    'Heard at E5.',
    'Heard at F#4.',
  ]);
  expect(withTrust(map, {})).toEqual(map);
});

test('a few answers weigh little and are not yet said; where all were heard there is nothing to say', () => {
  const few = withTrust(map, { toggle: { asked: 3, there: 2 } });
  expect(few.findings).toEqual([expect.objectContaining({ because: map.findings[0].because }), ...map.findings.slice(1)]);
  expect(few.passaggi[0].confidence).toBeCloseTo(0.8 * (12 / 13), 10);
  expect(withTrust(map, { toggle: { asked: 30, there: 30 } })).toEqual(map);
});
