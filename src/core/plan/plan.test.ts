import { keysFor, patternSpan, TOP_RESERVE_ST } from '../exercise/keys';
import { notate, renderKey } from '../exercise/render';
import { exerciseById, SHELF } from '../exercise/shelf';
import { FAMILIES } from '../exercise/types';
import { FINDING_NAMES, FindingName, Passaggio, VoiceMap } from '../map/types';
import { DAY_MINUTES, dayMinutes, SET_MINUTES, setMinutes } from './dose';
import { anchorsOf, planFor } from './plan';
import { expectedChange, VOICE_TYPES, voiceType, VoiceTypeId } from './voice-types';

const limit = (midi: number) => ({ midi, takeIds: ['t'] });

/** The map of a voice of a type with one finding at its usual change. */
function mapWith(type: VoiceTypeId, name: FindingName | null): VoiceMap {
  const { low, high } = voiceType(type);
  const change = expectedChange(type);
  const crossing = name === 'flip' || name === 'toggle' || name === 'blended';
  const passaggio = {
    midi: change,
    lowMidi: change - 1,
    highMidi: change + 1,
    upMidi: change,
    downMidi: change,
    name: 'flip',
    confidence: 0.9,
    votes: [],
  } as unknown as Passaggio;
  return {
    engine: 'test',
    takes: 3,
    extreme: { low: limit(low), high: limit(high) },
    usable: null,
    passaggi: crossing ? [passaggio] : [],
    findings: name ? [{ name, midi: change, confidence: 0.9, because: '', takeIds: [] }] : [],
    speakingMidi: null,
    levels: [],
    blend: [],
    evenness: null,
    insecure: [],
    weight: null,
    calibrated: 0,
    pinned: {},
  };
}

const everyVoice = VOICE_TYPES.flatMap((t) => FINDING_NAMES.map((f) => [t.id, f] as const));

test('the shelf covers scales, sirens, straw work, toggles and holds, and hangs together', () => {
  expect(SHELF.length).toBeGreaterThanOrEqual(12);
  expect(new Set(SHELF.map((e) => e.family))).toEqual(new Set(FAMILIES));
  expect(new Set(SHELF.map((e) => e.id)).size).toBe(SHELF.length);
  for (const e of SHELF) {
    e.after.forEach(exerciseById);
    // What suits a finding is not to be kept from it; the order of tempi is slow to fast.
    expect(e.suits.filter((f) => e.avoid.includes(f))).toEqual([]);
    expect([...e.tempo].sort((a, b) => a - b)).toEqual(e.tempo);
  }
});

test.each(everyVoice)('%s, %s: work in keys this voice has, with reasons, in order, within the dose', (type, finding) => {
  const plan = planFor(mapWith(type, finding), type)!;
  const chosen = plan.items.map((it) => exerciseById(it.exerciseId));
  expect(chosen.some((e) => e.suits.includes(finding))).toBe(true);
  expect(chosen.some((e) => e.avoid.includes(finding))).toBe(false);
  expect(chosen[0].role).toBe('warm-up');
  expect(chosen[chosen.length - 1].role).toBe('test');
  plan.items.forEach((it, i) => {
    const span = patternSpan(chosen[i]);
    expect(it.keys.length).toBeGreaterThan(0);
    for (const key of it.keys) {
      expect(key + span.bottom).toBeGreaterThanOrEqual(plan.anchors.low);
      expect(key + span.top).toBeLessThanOrEqual(plan.anchors.high - TOP_RESERVE_ST);
    }
    expect(it.reason).toMatch(/^Because .+\.$/);
    // What must come before is there, and before.
    for (const before of chosen[i].after) {
      const at = chosen.findIndex((e) => e.id === before);
      expect(at === -1 ? keysFor(exerciseById(before), plan.anchors).length : at < i ? 0 : 1).toBe(0);
    }
  });
  // "Long siren before narrow slides": common practice, no source.
  const narrow = chosen.findIndex((e) => e.id === 'narrow-slide');
  if (narrow >= 0) expect(chosen.findIndex((e) => e.id === 'long-siren')).toBeLessThan(narrow);
  expect(setMinutes(plan.items)).toBeLessThanOrEqual(SET_MINUTES);
  expect(dayMinutes(plan.items)).toBeLessThanOrEqual(DAY_MINUTES);
});

test('warm-up stays below the change; holds go from three semitones above down to it (common practice, no source)', () => {
  const { anchors } = anchorsOf(mapWith('mezzo', 'flip'), 'mezzo')!;
  const warm = exerciseById('five-note-warm-up');
  expect(Math.max(...keysFor(warm, anchors)) + patternSpan(warm).top).toBeLessThan(anchors.change);
  expect(keysFor(exerciseById('first-head-hold'), anchors)).toEqual([3, 2, 1, 0].map((s) => anchors.change + s));
});

test('no takes, no plan; an expected change is said to be one', () => {
  expect(planFor({ ...mapWith('tenor', null), extreme: null }, 'tenor')).toBeNull();
  const plan = planFor(mapWith('tenor', 'pulled-chest'), 'tenor')!;
  expect(plan.changeMeasured).toBe(false);
  expect(plan.items.some((it) => it.reason.includes('where we expect the change'))).toBe(true);
});

test('a key in time: its chord, then the pattern at the tempo, then a breath', () => {
  const key = renderKey(exerciseById('five-note-warm-up'), 57, 120);
  expect(key.chord).toEqual([57, 61, 64]);
  expect(key.notes.map((n) => n.midi)).toEqual([57, 59, 61, 62, 64, 62, 61, 59, 57]);
  expect(key.notes[0].startS).toBeCloseTo(1);
  // Quavers at crotchet = 120 last a quarter of a second.
  expect(key.notes[1].startS - key.notes[0].startS).toBeCloseTo(0.25);
  expect(key.totalS).toBeCloseTo(1 + 8 * 0.25 + 0.5 + 1);
});

test('notation puts low voices in the bass clef and spells the key', () => {
  expect(notate(exerciseById('five-note-warm-up'), 46)).toMatchObject({
    clef: 'bass',
    notes: [{ letter: 'B', accidental: -1, octave: 2 }, {}, {}, { letter: 'E', accidental: -1 }, {}, {}, {}, {}, {}],
  });
  expect(notate(exerciseById('five-note-warm-up'), 62).clef).toBe('treble');
});
