import { SungNote, TakeFindings } from '../take/types';
import { blendCurve } from './blend';
import { BRIDGED, CATEGORIES, fittingCategories } from './categories';
import { changeNames, schoolById } from './schools';
import { mapVoice } from './pool';
import { CoachMark, Passaggio, TakeEvidence, Vote } from './types';
import { zoneOf } from './zone';
import { allInEnglish, inEnglish } from '../format/say';

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
  impression: false,
  vowels: [],
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
    expect(inEnglish(worst.because)).toMatch(/F#4|the singer feels it/);
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
    expect(inEnglish(map.insecure[0].because)).toMatch(words);
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
    expect(mapVoice([take]).insecure.map((n) => inEnglish(n.because))).toEqual([expect.stringMatching(/E4: sung 58 cents low/)]);
  });
});

// R. Miller's passaggi (1986, 1993; from memory): a voice that has a category's own is put in it.
test.each([
  ...CATEGORIES.map((c) => [c.name, c, schoolById('classical')] as const),
  ...BRIDGED.map((c) => [c.name, c, schoolById('bridges')] as const),
])('the changes and compass of a %s fit it best', (name, { changes, low, high, family }, school) => {
  const heard = changes.map(([, midi]) => passaggio(midi));
  const usable = { low: limit(low), high: limit(high) };
  const fits = fittingCategories({ passaggi: heard, usable }, school, family);
  expect(fits[0].name).toBe(name);
  expect(fits[0].because).toHaveLength(changes.length + 2);
});

test('a voice is held against its own family only, by what was held, and not on a first impression', () => {
  const classical = schoolById('classical');
  // A woman's change at A4 is where a light tenor's secondo lies (Miller 1993, from memory): she is none.
  const names = (family: 'low' | 'high') =>
    fittingCategories({ passaggi: [passaggio(69)], usable: null }, classical, family).map((c) => c.name);
  expect(names('high')).not.toContain('light tenor');
  expect(names('low')[0]).toBe('light tenor');
  expect(fittingCategories({ passaggi: [{ ...passaggio(64), impression: true }], usable: null }, classical, 'low')).toEqual([]);
});

test('a school names what was heard: the evidence is the same', () => {
  const tenor = { primo: 62, secondo: 67 };
  expect(changeNames(schoolById('classical'), [61.5], tenor)).toEqual(['primo passaggio']);
  expect(changeNames(schoolById('classical'), [66], tenor)).toEqual(['secondo passaggio']);
  expect(changeNames(schoolById('classical'), [62, 67], tenor)).toEqual(['primo passaggio', 'secondo passaggio']);
  // A soprano's primo lies at Eb4, her secondo at F#5 (Miller 1986, from memory): A4 is neither.
  const soprano = { primo: 63, secondo: 78 };
  expect(changeNames(schoolById('classical'), [69], soprano)).toEqual(['change from chest to head']);
  expect(changeNames(schoolById('classical'), [64, 69], soprano)).toEqual(['primo passaggio', 'change from chest to head']);
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

describe('weight', () => {
  const step = (db: number) => plainProfile().map((p) => (p.midi < 60 ? { ...p, levelDb: p.levelDb + db } : p));
  const weight = (db: number, downSt = 0) =>
    mapVoice(
      [0, 1].map((i) => {
        const take = siren(String(i), 60, {}, step(db));
        take.findings.events[1].midi -= downSt;
        return take;
      }),
    ).weight;
  test('leans heavy where chest outweighs head, light where head outweighs chest, and says by how much', () => {
    expect(weight(6)!.lean).toBeGreaterThan(0.15);
    expect(allInEnglish(weight(6)!.because)).toEqual(['at C4 chest outweighs head by 6 dB']);
    expect(weight(-6)!.lean).toBeLessThan(-0.15);
  });
  // Hysteresis of a semitone or two, up to five or six in others (common practice, no source), is no weight.
  test('isn’t made of ordinary hysteresis', () => expect(weight(0, 3)).toBeNull());
});

describe('what is stated and what is a first impression', () => {
  const on = (...days: number[]) => mapVoice(days.map((d, i) => siren(String(i), 60, { recordedAt: d * DAY })));
  test('one take, or many takes of one day, are a first impression; two on two days are more', () => {
    expect(on(0).passaggi[0].impression).toBe(true);
    expect(on(0, 0.02, 0.04).passaggi[0].impression).toBe(true);
    expect(on(0, 0.02, 0.04).findings[0].impression).toBe(true);
    // A lesson over midnight is one day.
    expect(on(0.99, 1.01).passaggi[0].impression).toBe(true);
    // Two passes each way are two sirens.
    expect(on(0, 1).passaggi[0].impression).toBe(false);
    expect(on(0, 1).findings[0].impression).toBe(false);
  });
  test('what the coach said is no impression', () => {
    const mark: CoachMark = { id: 'm', timeS: 1.5, midi: 60, direction: 'up', verdict: 'accept', by: 'coach' };
    expect(mapVoice([siren('a', 60, { marks: [mark] })]).passaggi[0].impression).toBe(false);
  });
});

test('the vowel that crosses best comes first; one vowel alone is compared with nothing', () => {
  const takes = [siren('a', 60, { vowel: 'ah' }), siren('b', 60, { vowel: 'ah' }), siren('c', null, { vowel: 'oo' })];
  expect(mapVoice(takes).passaggi[0].vowels).toEqual([
    { vowel: 'oo', passes: 2, heard: 0 },
    { vowel: 'ah', passes: 4, heard: 4 },
  ]);
  expect(mapVoice(takes.slice(0, 2)).passaggi[0].vowels).toEqual([]);
});

describe('the keys of one step of a lesson', () => {
  /** One key: eight notes of a voice that gains half a decibel a semitone, at one setting of the microphone. */
  const key = (low: number, together?: string) => {
    const take = siren(
      `key ${low}`,
      null,
      { together },
      plainProfile().filter((p) => p.midi >= low && p.midi <= low + 7),
    );
    return { ...take, findings: { ...take.findings, task: 'scale' as const } };
  };
  const slope = (together?: string) => mapVoice(Array.from({ length: 18 }, (_, i) => key(48 + i, together))).evenness!.slopeDb;
  test('share one middle, so that what rises over the voice still rises', () => {
    expect(slope('lesson/up')).toBeCloseTo(6, 1);
    expect(slope()).toBeLessThan(3);
  });
  test('that hear nothing take nothing from what slides tell', () => {
    const slides = [siren('a', 60, { recordedAt: 0 }), siren('b', 60, { recordedAt: DAY })];
    const keys = Array.from({ length: 10 }, (_, i) => {
      const take = siren(`key ${i}`, null);
      return { ...take, findings: { ...take.findings, task: 'scale' as const } };
    });
    expect(mapVoice([...slides, ...keys]).passaggi[0].confidence).toBeGreaterThanOrEqual(mapVoice(slides).passaggi[0].confidence);
  });
});

describe('pulled chest', () => {
  /** A siren whose level rises by `db` a semitone going up, to a change `up`, and that changes back at `down`. */
  const pulled = (id: string, up: number | null, down: number, db: number, rough = 1): TakeEvidence => {
    const profile = plainProfile().map((p) => ({ ...p, levelDb: -30 + db * (p.midi - 48), jitterCents: p.midi > 65 ? 4 * rough : 4 }));
    const take = siren(id, up, {}, profile);
    take.findings.events.slice(1).forEach((e) => (e.midi = down));
    take.findings.legs[0].levels = profile.map((p) => ({ midi: p.midi, db: p.levelDb }));
    return take;
  };
  const names = (takes: TakeEvidence[], expectedMidi?: number) => mapVoice(takes, { expectedMidi }).findings.map((f) => f.name);
  const three = (...of: [number | null, number, number, number?]) => ['a', 'b', 'c'].map((id) => pulled(id, ...of));
  test('is chest carried a third or more over the own coming-down change, ever louder, though it flips in the end', () => {
    expect(names(three(67, 61, 0.8))).toContain('pulled-chest');
    expect(names(three(63, 61, 0.8))).not.toContain('pulled-chest');
    expect(names(three(67, 61, 0))).not.toContain('pulled-chest');
  });
  test('without a change it is told from where such voices change, and by a pitch that strains', () => {
    expect(names(three(null, 0, 0.8, 3), 62)).toContain('pulled-chest');
    expect(names(three(null, 0, 0.8), 62)).not.toContain('pulled-chest');
    expect(names(three(null, 0, 0.8, 3), 70)).not.toContain('pulled-chest');
  });
});

test('no chest is only said of a voice that went below where it speaks', () => {
  const profile = plainProfile().map((p) => ({ ...p, levelDb: p.midi < 58 ? -30 + 2.5 * (p.midi - 58) : -30 }));
  const speaks = (midi: number | null) => {
    const take = siren('a', null, {}, profile);
    take.findings.speakingMidi = midi;
    return mapVoice([take]).findings.map((f) => f.name);
  };
  expect(speaks(52)).toContain('no-chest');
  expect(speaks(45)).not.toContain('no-chest');
  expect(speaks(null)).not.toContain('no-chest');
});

test('where the vowel turns by itself is kept by vowel', () => {
  const takes = [66, 67, 68].map((m, i) => siren(String(i), null, { vowel: i < 2 ? 'ah' : 'oo' }));
  takes.forEach((t, i) => (t.findings.vowelTurnMidi = [66, 67, 50][i]));
  expect(mapVoice(takes).vowelTurns).toEqual([
    { vowel: 'oo', midi: 50 },
    { vowel: 'ah', midi: 66.5 },
  ]);
});

describe('the zone of a passaggio', () => {
  test('goes from the lower to the upper place of an audible change, and over the width of a blend', () => {
    expect(zoneOf({ ...passaggio(64), upMidi: 65, downMidi: 62.8 })).toEqual({ first: 63, last: 65 });
    expect(zoneOf({ ...passaggio(64), upMidi: 64, downMidi: null })).toEqual({ first: 64, last: 64 });
    expect(zoneOf({ ...passaggio(64), name: 'blended', widthSt: 6, upMidi: 65, downMidi: 63 })).toEqual({ first: 60, last: 68 });
  });
});
