import { midiToHz } from '../music/pitch';
import { patternSpan } from '../exercise/pattern';
import fc from 'fast-check';
import { VOICE_TYPES } from '../plan/voice-types';
import { degreeToSemitones } from '../music/scale';
import { exerciseById, SHELF } from '../exercise/shelf';
import { advance, anchorsFor, askOf, beginCourse, isOver, isRoundOver, restReason, restsToday } from './course';
import { exerciseStep, nextSound, offerOf } from './exercise-step';
import { PROTOCOLS, STEPS } from './protocols';
import { notesAsked, patternS } from './pattern';
import { sungIn, tally, withJudged, withoutTake } from './record';
import { createTakeEnd } from './take-end';
import { Course, JudgedKey, LessonAction } from './types';

const WELL = { hoarse: false, ill: false, pain: false, note: '' };
const TENOR = anchorsFor(null, 'tenor');
const first = PROTOCOLS[0];
/** An exercise in one key, as it could be chosen. */
const PLAIN = { keys: [55], sound: 'ng', tempo: 90 };
const FIVES = exerciseById('five-note-ah');
const at = (course: Course) => askOf(course)?.step.id;
const after = (course: Course, ...kinds: (LessonAction['kind'] & ('taken' | 'next' | 'back' | 'skip' | 'stop' | 'hold'))[]) =>
  kinds.reduce((c, kind) => advance(c, { kind }), course);

test('health is asked first; a voice that is not well is not taken to its ends, and the reason is said', () => {
  const course = beginCourse(first, TENOR);
  expect(askOf(course)).toBeNull();
  const hoarse = advance(course, { kind: 'health', answers: { ...WELL, hoarse: true } });
  const sung: string[] = [];
  for (let c = hoarse; !isOver(c); c = advance(c, { kind: 'skip' })) sung.push(at(c)!);
  expect(sung).toEqual(first.steps.filter((s) => !s.testsRange).map((s) => s.id));
  const over = first.steps.reduce((c) => advance(c, { kind: 'skip' }), hoarse);
  expect(over.skipped.up).toBe(restReason(hoarse.health));
  expect(over.skipped.up).toMatch(/Hoarse.*doctor/);
});

test('keys climb from a comfortable note until the voice says stop; one key lower confirms the top', () => {
  const up = advance(advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL }), {
    kind: 'go',
    step: first.steps.indexOf(STEPS.up),
  });
  const lowest = notesAsked(askOf(up)!)!.lowest;
  // Never the lowest note first (common practice, no source).
  expect(lowest).toBeGreaterThanOrEqual(TENOR.low + 3);
  const climbed = after(up, 'taken', 'taken', 'taken');
  expect(askOf(climbed)!.tonicMidi).toBe(lowest + 3);
  const stopped = after(climbed, 'stop');
  expect(askOf(stopped)).toMatchObject({ tonicMidi: lowest + 2, confirms: true });
  expect(at(after(stopped, 'taken'))).toBe('down');
  // Downward the confirming key lies higher, and the walk ends where no voice goes on.
  const down = after(stopped, 'taken', 'taken', 'taken');
  expect(askOf(down)!.tonicMidi! - askOf(after(down, 'stop'))!.tonicMidi!).toBe(-1);
  let deep = down;
  for (let i = 0; i < 100 && at(deep) === 'down'; i++) deep = after(deep, 'next');
  expect(at(deep)).toBe('sirens');
});

test('hold keeps the key, back goes a key and then a step back, takes without keys are counted', () => {
  const course = advance(advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL }), { kind: 'go', step: 1 });
  const key = askOf(course)!.tonicMidi;
  expect(askOf(after(course, 'hold', 'taken', 'taken'))!.tonicMidi).toBe(key);
  expect(askOf(after(course, 'taken', 'back'))!.tonicMidi).toBe(key);
  expect(at(after(course, 'back'))).toBe('speaking');
  const sirens = advance(course, { kind: 'go', step: first.steps.indexOf(STEPS.sirens) });
  expect(askOf(sirens)).toMatchObject({ number: 1, of: 3, tonicMidi: null });
  expect(at(after(sirens, 'taken', 'taken'))).toBe('sirens');
  expect(at(after(sirens, 'taken', 'taken', 'taken'))).toBe('octave-slide');
});

test('back from the key that confirms is the key where it was enough; what was passed over and come back to is not left out', () => {
  const up = advance(advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL }), {
    kind: 'go',
    step: first.steps.indexOf(STEPS.up),
  });
  for (const top of [up, after(up, 'taken', 'taken')]) {
    expect(askOf(after(top, 'stop', 'back'))).toEqual(askOf(top));
  }
  const over = after(up, 'skip');
  expect(over.skipped).toHaveProperty(STEPS.up.id);
  expect(after(over, 'back').skipped).toEqual({});
  // What was begun is cut short, not left out.
  expect(after(up, 'taken', 'skip').skipped).toEqual({});
});

const ACTIONS = fc.oneof(
  fc.constantFrom<LessonAction>(...(['taken', 'next', 'back', 'skip', 'stop', 'hold'] as const).map((kind) => ({ kind }))),
  fc.record({ kind: fc.constant('go' as const), step: fc.integer({ min: -2, max: 20 }) }),
  fc.record({ kind: fc.constant('vowel' as const), vowel: fc.constantFrom('ah', 'oo') }),
  fc.record({ kind: fc.constant('key' as const), by: fc.constantFrom<1 | -1>(1, -1) }),
  fc.record({ kind: fc.constant('in-key' as const), tonicMidi: fc.integer({ min: 21, max: 108 }) }),
  fc.record({ kind: fc.constant('tempo' as const), tempo: fc.integer({ min: 40, max: 200 }) }),
  fc.record({ kind: fc.constant('sing' as const), step: fc.constantFrom(...SHELF).map((e) => exerciseStep({ ...PLAIN, exercise: e })) }),
);

test('whatever a coach presses, what is asked for can be sung, and an unwell voice is never taken to its ends', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...PROTOCOLS),
      fc.constantFrom(...VOICE_TYPES.map((t) => t.id)),
      fc.boolean(),
      fc.array(ACTIONS, { maxLength: 80 }),
      (protocol, type, well, actions) => {
        const begun = beginCourse(protocol, anchorsFor(null, type));
        let course = advance(begun, { kind: 'health', answers: { ...WELL, hoarse: !well } });
        for (const action of actions) {
          const before = course;
          course = advance(course, action);
          expect(course.revision).toBe(before.revision + 1);
          expect(course.count).toBeGreaterThanOrEqual(0);
          const ask = askOf(course);
          expect(ask === null).toBe(isOver(course));
          if (!ask) continue;
          const notes = notesAsked(ask);
          if (notes) expect(notes.lowest >= 24 && notes.highest <= 96).toBe(true);
          if (!well) expect(ask.step.testsRange).toBe(false);
          expect(course.skipped).not.toHaveProperty(ask.step.id);
          // A take and back again is where one was, unless it ended the step.
          const on = advance(course, { kind: 'taken' });
          if (!course.held && on.at === course.at && on.tonicMidi !== course.tonicMidi)
            expect(askOf(advance(on, { kind: 'back' }))).toEqual(ask);
        }
      },
    ),
    { seed: 11, numRuns: 300 },
  ));

test('one note is asked for in four colours, low to high in head', () => {
  const colours = advance(advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL }), {
    kind: 'go',
    step: first.steps.indexOf(STEPS.colours),
  });
  const asked = ['taken', 'taken', 'taken'].reduce((all) => [...all, after(all[all.length - 1], 'taken')], [colours]).map((c) => askOf(c)!);
  expect(asked.map((a) => a.colour)).toEqual(['chest', 'chest-blend', 'head-blend', 'head']);
  expect(new Set(asked.map((a) => a.tonicMidi)).size).toBe(1);
  expect(isOver(after(colours, 'taken', 'taken', 'taken', 'taken'))).toBe(true);
});

test('a take ends by itself after enough singing and a quiet; a breath inside and a cough before do not end it', () => {
  const ask = askOf(
    advance(advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL }), { kind: 'go', step: first.steps.indexOf(STEPS.up) }),
  )!;
  const frames = (seconds: number, hz: number) =>
    Array.from({ length: Math.round(seconds / 0.005) }, (_, i) => ({ timeS: i * 0.005, hz, levelDb: -20 }));
  const end = createTakeEnd(ask);
  expect(end.push(frames(0.2, 200))).toBe(false);
  expect(end.push(frames(2, 0))).toBe(false);
  expect(end.push(frames(2.5, 200))).toBe(false);
  expect(end.push(frames(0.5, 0))).toBe(false);
  expect(end.push(frames(0.5, 200))).toBe(false);
  expect(end.push(frames(1, 0))).toBe(true);
  const free = createTakeEnd({ ...ask, step: STEPS.free });
  expect(free.push([...frames(5, 200), ...frames(30, 0)])).toBe(false);
});

test('a young or changing voice isn’t asked for its ends or made to be loud; what is pinned bounds every key', () => {
  const young = { ...TENOR, young: true };
  const sung: string[] = [];
  for (let c = advance(beginCourse(first, young), { kind: 'health', answers: WELL }); !isOver(c); c = advance(c, { kind: 'skip' }))
    sung.push(at(c)!);
  expect(sung).toContain('sirens');
  for (const left of ['up', 'down', 'hold-low', 'hold-high', 'loud-to-soft']) expect(sung).not.toContain(left);

  const pinned = { ...TENOR, pinned: { low: 52, high: 64 } };
  let up = advance(advance(beginCourse(first, pinned), { kind: 'health', answers: WELL }), {
    kind: 'go',
    step: first.steps.findIndex((s) => s.id === 'up'),
  });
  for (let i = 0; i < 30 && at(up) === 'up' && !up.confirming; i++) {
    const { tonicMidi, step } = askOf(up)!;
    const notes = step.degrees!.map((d) => tonicMidi! + degreeToSemitones(d));
    expect([Math.min(...notes) >= 52, Math.max(...notes) <= 64]).toEqual([true, true]);
    up = advance(up, { kind: 'next' });
  }
});

test('in pain nothing is sung, unless the coach goes on on their own word', () => {
  const pain = advance(beginCourse(first, TENOR), { kind: 'health', answers: { ...WELL, pain: true } });
  expect(restsToday(pain)).toBe(true);
  expect(restReason(pain.health)).toContain('nothing is sung today');
  expect(restsToday(advance(pain, { kind: 'health', answers: { ...pain.health!, goOn: true } }))).toBe(false);
});

describe('any exercise in the lesson', () => {
  const WELL_TODAY = { answers: null, lowerSt: 0 };
  const anchors = { low: 48, high: 67, change: 64, speaking: 52 };
  const begun = advance(beginCourse(first, TENOR), { kind: 'health', answers: WELL });
  const offer = offerOf(FIVES, anchors, WELL_TODAY, { keys: [55, 56, 57], sound: 'ng', tempo: 92 });
  const sung = advance(begun, { kind: 'sing', step: exerciseStep(offer) });

  test('comes before what was not begun and after what was, in the keys, on the sound and at the pace that were chosen', () => {
    expect(askOf(sung)).toMatchObject({ step: { name: FIVES.name, tempo: 92 }, vowel: 'ng', tonicMidi: 55, number: 1, of: 3 });
    expect(sung.steps[sung.at + 1]).toEqual(begun.steps[begun.at]);
    const later = advance(after(begun, 'skip', 'taken'), { kind: 'sing', step: exerciseStep(offer) });
    expect(later.steps[later.at - 1].id).toBe('warm-up');
    // At its end the lesson goes on where it was; a second time it is a step of its own.
    expect(at(after(sung, 'taken', 'taken', 'taken', 'next'))).toBe('speaking');
    const again = advance(sung, { kind: 'sing', step: exerciseStep(offer) });
    expect(new Set(again.steps.map((s) => s.id)).size).toBe(again.steps.length);
  });

  test('a lesson at the piano has nothing but what is put in, and can be gone on with after its end', () => {
    const empty = advance(
      beginCourse(
        PROTOCOLS.find((p) => p.id === 'at-the-piano')!,
        TENOR,
      ),
      { kind: 'health', answers: WELL },
    );
    expect(isOver(empty)).toBe(true);
    const one = advance(empty, { kind: 'sing', step: exerciseStep(offer) });
    expect(askOf(one)?.step.name).toBe(FIVES.name);
    const over = after(one, 'next', 'next', 'next');
    expect(isOver(over)).toBe(true);
    expect(askOf(advance(over, { kind: 'sing', step: exerciseStep(offer) }))?.step.name).toBe(FIVES.name);
  });

  test('when its keys are sung the lesson stays with it, until the coach goes on, higher, or back', () => {
    const done = after(sung, 'taken', 'taken', 'taken');
    expect([at(done), isRoundOver(done), askOf(done)?.tonicMidi, askOf(done)?.of]).toEqual([FIVES.id, true, 57, null]);
    expect(isRoundOver(after(sung, 'taken', 'taken'))).toBe(false);
    const higher = advance(done, { kind: 'key', by: 1 });
    expect([askOf(higher)?.tonicMidi, askOf(after(higher, 'taken'))?.tonicMidi, at(after(higher, 'taken', 'next'))]).toEqual([
      58,
      58,
      'speaking',
    ]);
    expect(askOf(after(done, 'back'))).toMatchObject({ tonicMidi: 57, number: 3, of: 3 });
  });

  test('the walk turns with the key: down and on downward, up and on upward; back goes the way it came', () => {
    const down = advance(after(sung, 'taken'), { kind: 'key', by: -1 });
    expect(askOf(down)?.tonicMidi).toBe(55);
    expect(askOf(after(down, 'taken'))?.tonicMidi).toBe(54);
    expect(askOf(after(down, 'taken', 'back'))?.tonicMidi).toBe(55);
    // A new step walks as it was made to.
    expect(askOf(after(down, 'skip', 'skip'))?.step.id).toBe('warm-up');
    expect(after(down, 'skip').walk).toBeUndefined();
  });

  test('where today’s check is under good days, what reaches above the change is offered lower, what does not as it is', () => {
    const keys = [55, 56, 57, 58, 60];
    const { top } = patternSpan(FIVES);
    const lower = offerOf(FIVES, anchors, { ...WELL_TODAY, lowerSt: 2 }, { keys }).keys;
    expect(Math.max(...lower) + top).toBe(60 + top - 2);
    expect(lower.slice(0, 3)).toEqual([55, 56, 57]);
    expect(offerOf(FIVES, anchors, { answers: null, lowerSt: 0 }, { keys }).keys).toEqual(keys);
  });

  test('a voice that is not well is offered nothing that tests or adds weight, and no key above its change, however the keys are pressed', () => {
    const hoarse = { hoarse: true, ill: false, pain: false };
    expect(offerOf(exerciseById('long-siren'), anchors, { ...WELL_TODAY, answers: hoarse }).keys).toEqual([]);
    const gentle = offerOf(FIVES, anchors, { ...WELL_TODAY, answers: hoarse }, { keys: [55, 56, 57, 58, 59, 60] });
    expect(gentle.keys).toEqual([55, 56, 57]);
    expect(gentle.because?.id).toBe('hoarse-today');
    let course = advance(beginCourse(first, TENOR), { kind: 'health', answers: { ...WELL, hoarse: true } });
    course = advance(course, { kind: 'sing', step: exerciseStep(gentle) });
    for (let i = 0; i < 12; i++) course = advance(course, { kind: 'key', by: 1 });
    expect(notesAsked(askOf(course)!)!.highest).toBeLessThanOrEqual(TENOR.change);
    expect(() => exerciseStep(offerOf(FIVES, anchors, { ...WELL_TODAY, answers: { ...hoarse, pain: true } }))).toThrow(
      /No key of .* is left/,
    );
  });

  test('nearly all of it and a short quiet end a take: the verdict is waited for', () => {
    const ask = askOf(sung)!;
    const frames = (seconds: number, hz: number) => Array.from({ length: Math.round(seconds / 0.005) }, () => ({ hz }));
    expect(createTakeEnd(ask).push([...frames(0.95 * patternS(ask.step), 200), ...frames(0.6, 0)])).toBe(true);
    expect(createTakeEnd(ask).push([...frames(0.7 * patternS(ask.step), 200), ...frames(0.6, 0)])).toBe(false);
    // On its last note, here an octave lower, the voice has nothing more to sing.
    const tonicHz = midiToHz(ask.tonicMidi! - 12);
    const until = (share: number, hz: number) => [
      ...frames(0.6 * patternS(ask.step), 200),
      ...frames((share - 0.6) * patternS(ask.step), hz),
    ];
    expect(ask.step.exercise!.steps.at(-1)).toMatchObject({ degree: 1 });
    expect(createTakeEnd(ask).push([...until(0.95, tonicHz), ...frames(0.35, 0)])).toBe(true);
    expect(createTakeEnd(ask).push([...until(0.95, 1.12 * tonicHz), ...frames(0.35, 0)])).toBe(false);
    expect(createTakeEnd(ask).push([...until(0.75, tonicHz), ...frames(0.35, 0)])).toBe(false);
  });

  test('sounds go round: the exercise’s own first, then the vowels it lacks', () => {
    const round = ['ng', 'oo'].concat('ah', 'ee');
    round.forEach((sound, i) => expect(nextSound(['ng', 'oo'], ['ah', 'oo', 'ee'], sound)).toBe(round[(i + 1) % round.length]));
    expect(nextSound(['ng', 'oo'], ['ah'], 'unheard of')).toBe('ng');
  });
});

describe('how keys went', () => {
  const key = (takeId: string, sound: string, tonicMidi: number, verdict: JudgedKey['verdict'] = 'yes'): JudgedKey => ({
    takeId,
    exerciseId: 'fives',
    name: 'Fives',
    sound,
    tonicMidi,
    verdict,
    says: '',
  });
  const course = beginCourse(first, TENOR);

  test('stands by exercise, sound and key, the last time a key was sung counting', () => {
    const judged = [key('a', 'ng', 57), key('b', 'ng', 55, 'not yet'), key('c', 'oo', 55), key('d', 'ng', 55)];
    const [sung] = sungIn(judged.reduce(withJudged, course).judged!);
    expect(sung.tonics).toEqual([55, 57]);
    expect(sung.sounds.map((s) => [s.sound, tally(s.keys.values())])).toEqual([
      ['ng', { yes: 2, 'not yet': 0, 'not told': 0 }],
      ['oo', { yes: 1, 'not yet': 0, 'not told': 0 }],
    ]);
    expect(sung.sounds[0].keys.get(55)?.takeId).toBe('d');
  });

  test('a take heard anew counts once, one thrown away not at all; each is a newer lesson', () => {
    const twice = [key('a', 'ng', 55), key('a', 'ng', 55, 'not yet')].reduce(withJudged, course);
    expect(twice.judged).toEqual([key('a', 'ng', 55, 'not yet')]);
    expect(twice.revision).toBe(course.revision + 2);
    expect(withoutTake(twice, 'a')).toMatchObject({ judged: [], revision: twice.revision + 1 });
    expect(withoutTake(twice, 'b')).toBe(twice);
  });
});
