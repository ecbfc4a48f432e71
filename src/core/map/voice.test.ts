import { SungNote, TakeFindings } from '../take/types';
import { blendCurve } from './blend';
import { BRIDGED, CATEGORIES, fittingCategories } from './categories';
import { changeNames, schoolById } from './schools';
import { mapVoice } from './pool';
import { CoachMark, Passaggio, TakeEvidence, Vote } from './types';

const DAY = 86_400_000;
const limit = (midi: number) => ({ midi, takeIds: [] });
const vote = (midi: number, widthSt = 1, weight = 1): Vote => ({
  takeId: 't',
  leg: 0,
  timeS: 1,
  midi,
  direction: 'up',
  kind: widthSt > 2 ? 'blend' : 'flip',
  widthSt,
  weight,
  source: 'machine',
});
const passaggio = (midi: number, votes = [vote(midi)]): Passaggio => ({
  midi,
  lowMidi: midi - 0.5,
  highMidi: midi + 0.5,
  upMidi: midi,
  downMidi: midi,
  up: { found: 1, of: 1 },
  down: { found: 1, of: 1 },
  widthSt: 1,
  name: 'flip',
  confidence: 0.9,
  votes,
});

/** A usable siren from C3 to C5 whose change lies at `midi`, or without any. */
function siren(takeId: string, midi: number | null, more: Partial<TakeEvidence> = {}, profile = plainProfile()): TakeEvidence {
  const legs = (['up', 'down'] as const).map((direction, i) => ({
    startS: 3 * i,
    endS: 3 * i + 3,
    direction,
    lowestMidi: 48,
    highestMidi: 72,
    crossOvers: [],
  }));
  const events =
    midi === null
      ? []
      : legs.map(({ direction, startS }) => ({
          timeS: startS + 1.5,
          midi,
          fromMidi: midi - 1,
          toMidi: midi + 1,
          direction,
          kind: 'flip' as const,
          confidence: 0.9,
          dipDb: 6,
        }));
  const findings: TakeFindings = {
    engine: 'test',
    task: 'siren',
    durationS: 6,
    sampleRate: 44100,
    quality: { clipped: false, snrDb: 50, usable: true, reasons: [] },
    notes: [],
    pattern: null,
    calibrated: false,
    range: { lowestMidi: 48, highestMidi: 72 },
    held: null,
    speakingMidi: null,
    legs,
    events,
    profile,
  };
  return { takeId, findings, marks: [], ...more };
}

function plainProfile(strange: Partial<TakeFindings['profile'][number]> & { midi?: number } = {}) {
  return Array.from({ length: 25 }, (_, i) => {
    const note = { midi: 48 + i, seconds: 0.2, levelDb: -30 + 0.5 * i, clarity: 0.98, jitterCents: 4, head: 0 };
    return note.midi === strange.midi ? { ...note, ...strange } : note;
  });
}

describe('the blend curve', () => {
  test('is half head at the change, rises over the change’s width and never falls', () => {
    const curve = blendCurve([passaggio(60, [vote(60, 6)])], 48, 72);
    const at = (midi: number) => curve.find((b) => b.midi === midi)!.head;
    expect(at(60)).toBeCloseTo(0.5, 6);
    expect(at(57)).toBeCloseTo(0.1, 6); // the width is from 10 to 90 %
    expect(at(63)).toBeCloseTo(0.9, 6);
    curve.slice(1).forEach((b, i) => expect(b.head).toBeGreaterThanOrEqual(curve[i].head));
  });
  test('is widest where passes differ, and two changes share the way', () => {
    const curve = blendCurve([passaggio(60, [vote(58), vote(62)])], 48, 72);
    const spread = (midi: number) => curve.find((b) => b.midi === midi)!.spread;
    expect(spread(60)).toBeCloseTo(0.5, 2);
    expect(spread(50)).toBeLessThan(0.01);
    const two = blendCurve([passaggio(56), passaggio(66)], 48, 72);
    expect(two.find((b) => b.midi === 61)!.head).toBeCloseTo(0.5, 3);
  });
  test('isn’t drawn for a voice whose change is unknown', () => expect(mapVoice([siren('a', null)]).blend).toEqual([]));
});

test('what was heard lately weighs more than what was heard long ago', () => {
  const takes = (oldDays: number) => [
    ...[0, 1, 2].map((i) => siren(`old${i}`, 60, { recordedAt: -oldDays * DAY })),
    ...[0, 1].map((i) => siren(`new${i}`, 62, { recordedAt: 0 })),
  ];
  expect(mapVoice(takes(1)).passaggi[0].midi).toBeCloseTo(60, 1);
  expect(mapVoice(takes(120)).passaggi[0].midi).toBeCloseTo(62, 1);
});

describe('words', () => {
  const mark = (by: CoachMark['by'], timeS: number): CoachMark => ({ id: by, timeS, midi: 66, direction: 'up', verdict: 'add', by });
  test('the singer’s own report is evidence, beside the coach’s', () => {
    const takes = [siren('a', null, { marks: [mark('singer', 1.5)] }), siren('b', null), siren('c', null)];
    const [worst] = mapVoice(takes).insecure;
    expect(worst.because).toMatch(/F#4|the singer feels it/);
    // One feeling in three takes is no passaggio; a coach's word is.
    expect(mapVoice(takes).passaggi).toEqual([]);
    takes[0].marks = [mark('coach', 1.5)];
    expect(mapVoice(takes).passaggi.map((p) => p.midi)).toEqual([66]);
  });
});

describe('insecure notes', () => {
  test.each([
    ['restless', { jitterCents: 30 }, /restless/],
    ['hollow', { levelDb: -40 }, /softer than its neighbours/],
  ])('a %s note is named with its sign, and a plain voice has none', (_, strange, words) => {
    const map = mapVoice([siren('a', null, {}, plainProfile({ midi: 62, ...strange }))]);
    expect(map.insecure[0].midi).toBe(62);
    expect(map.insecure[0].because).toMatch(words);
    expect(mapVoice([siren('a', null)]).insecure).toEqual([]);
  });
  test('a note that scales sing low is one', () => {
    const take = siren('a', null);
    const note = (midi: number, cents: number): SungNote => ({
      startS: 0,
      endS: 0.3,
      midi,
      cents,
      onsetS: 0,
      driftCents: 0,
      vibrato: null,
      unrestCents: 3,
    });
    take.findings.notes = [note(60, 0), note(64, -55), note(64, -60)];
    const notes = [0, 1, 2].map((i) => ({ degree: 1, note: i, cents: take.findings.notes[i].cents }));
    take.findings.pattern = { name: 'x', degrees: [1, 1, 1], keys: [{ tonicMidi: 60, startS: 0, endS: 1, notes, extra: [] }] };
    expect(mapVoice([take]).insecure.map((n) => n.because)).toEqual([expect.stringMatching(/E4: sung 58 cents low/)]);
  });
});

// R. Miller's passaggi (1986, 1993; from memory): a voice that has a category's own is put in it.
test.each([
  ...CATEGORIES.map((c) => [c.name, c, schoolById('classical')] as const),
  ...BRIDGED.map((c) => [c.name, c, schoolById('bridges')] as const),
])('the changes and compass of a %s fit it best', (name, { changes, low, high }, school) => {
  const heard = changes.map(([, midi]) => passaggio(midi));
  const fits = fittingCategories({ passaggi: heard, extreme: { low: limit(low), high: limit(high) } }, school);
  expect(fits[0].name).toBe(name);
  expect(fits[0].because).toHaveLength(changes.length + 2);
});

test('a school names what was heard: the evidence is the same', () => {
  const tenor = { primo: 62, secondo: 67 };
  expect(changeNames(schoolById('classical'), [61.5], tenor)).toEqual(['primo passaggio']);
  expect(changeNames(schoolById('classical'), [66], tenor)).toEqual(['secondo passaggio']);
  expect(changeNames(schoolById('classical'), [62, 67], tenor)).toEqual(['primo passaggio', 'secondo passaggio']);
  expect(changeNames(schoolById('bridges'), [69, 76, 82, 88], tenor)).toEqual([
    'first bridge',
    'second bridge',
    'third bridge',
    'fourth bridge',
  ]);
  expect(changeNames(schoolById('chest-first'), [69], tenor)).toEqual(['bridge']);
});

test('the level curve is held against its own even rise', () => {
  const { evenness } = mapVoice([siren('a', null, {}, plainProfile({ midi: 60, levelDb: -14 }))]);
  expect(evenness!.slopeDb).toBeCloseTo(6, 0); // half a decibel a semitone
  expect(evenness!.worstMidi).toBe(60);
  expect(evenness!.worstDb).toBeGreaterThan(8);
});

test('weight leans heavy where chest is louder than its line and held on to, light where it is softer', () => {
  const step = (db: number) => plainProfile().map((p) => (p.midi < 60 ? { ...p, levelDb: p.levelDb + db } : p));
  const lean = (db: number) => mapVoice([0, 1].map((i) => siren(String(i), 60, {}, step(db)))).weight!.lean;
  expect(lean(6)).toBeGreaterThan(0.15);
  expect(lean(-6)).toBeLessThan(-0.15);
});
