import { SHELF } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { Exercise } from '../exercise/types';
import { MISTAKES } from '../sim/score';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import type { CrossingStyle } from '../sim/profile';
import { judgeTake } from './judge';
import { hearExercise } from './hear';
import { Made, madeProfile, madeTake } from './made-trace';
import type { Asked, Judgement } from './types';
import { inWords, judgementInWords } from './words';

const KEYS = [55, 56, 57];
const askedOf = (e: Exercise, keys = KEYS): Asked => ({ exercise: e, sound: e.sounds[0], keys, tempo: e.tempo[1] });
const laid = ({ exercise, keys, tempo }: Asked) => keys.map((k) => renderKey(exercise, k, tempo));
const judge = (e: Exercise, made: Made = {}, asked = askedOf(e)): Judgement => judgeTake(asked, madeTake(laid(asked), made));
const byId = (id: string) => SHELF.find((e) => e.id === id)!;
/** One pitch throughout, or spoken: a drone is just what was asked for. */
const oneNote = (e: Exercise) => new Set(e.steps.map((s) => s.degree)).size === 1;
/** A level line is no “softer going up”. */
const plain = SHELF.filter((e) => e.measure !== 'softer-up');

test.each(plain.map((e) => [e.id, e]))('%s sung as asked is a yes, late or in another octave as well', (_, e) => {
  for (const made of [{}, { lateS: 0.25 }, { higherSt: -12 }, { higherSt: 0.2 }]) {
    const judgement = judge(e, made);
    expect([made, judgement.verdict, judgement.because]).toEqual([made, 'yes', null]);
  }
});

test.each(SHELF.map((e) => [e.id, e]))('%s sung wrong in any way is not yet', (_, e) => {
  for (const mistake of MISTAKES) {
    if (mistake === 'droned' && oneNote(e)) continue;
    const { verdict } = judge(e, { mistake });
    expect([mistake, verdict]).toEqual([mistake, 'not yet']);
  }
});

test.each(SHELF.filter((e) => e.steps.some((s) => s.slide)).map((e) => [e.id, e]))('%s with a leap in it is not yet', (_, e) => {
  expect(judge(e, { mistake: 'leapt' }).verdict).toBe('not yet');
});

test('a follow-along that was stopped in a key and began it anew: the cut key is nobody’s, the others are judged where they were sung', () => {
  const five = byId('five-note-warm-up');
  const asked = askedOf(five, [55, 56, 57]);
  const [first, second, third] = laid(asked);
  const CUT_S = second.chordS + 0.7;
  // Sung: the first key, a beginning of the second, the second and the third.
  const cut = {
    ...second,
    totalS: CUT_S,
    notes: second.notes.flatMap((n) => (n.startS < CUT_S ? [{ ...n, endS: Math.min(n.endS, CUT_S) }] : [])),
  };
  const startsS = [0, first.totalS + CUT_S, first.totalS + CUT_S + second.totalS];
  const take = (made: Made = {}) => madeTake([first, cut, second, third], made);
  expect(judgeTake({ ...asked, startsS }, take()).verdict).toBe('yes');
  expect(judgeTake(asked, take()).verdict).not.toBe('yes');
  for (const mistake of ['wrong note', 'flat', 'stopped', 'faded'] as const)
    expect([mistake, judgeTake({ ...asked, startsS }, take({ mistake })).verdict]).toEqual([mistake, 'not yet']);
});

describe('one key sung alone, after the piano, at a pace of the singer’s own', () => {
  /** A take that begins with the voice: the chord is not in it. */
  const alone = (e: Exercise, pace: number, made: Made = {}) => {
    const asked = { ...askedOf(e, [57]), alone: true };
    const [key] = laid({ ...asked, tempo: asked.tempo / pace });
    const bare = { ...key, notes: key.notes.map((n) => ({ ...n, startS: n.startS - key.chordS + 0.3, endS: n.endS - key.chordS + 0.3 })) };
    return judgeTake(asked, madeTake([bare], made)).verdict;
  };
  // Trills and straws are judged by less; the rest must tell right from wrong at any pace.
  const judged = plain.filter((e, i) => e.steps.length > 1 && i % 3 === 0);
  test.each([0.8, 1.4])('%d times as long as the piano: right is a yes, wrong is not yet', (pace) => {
    for (const e of judged) {
      expect([e.id, alone(e, pace)]).toEqual([e.id, 'yes']);
      for (const mistake of ['flat', 'stopped', 'faded'] as const)
        expect([e.id, mistake, alone(e, pace, { mistake })]).toEqual([e.id, mistake, 'not yet']);
    }
  });
});

test('a key that was left out is not told, and keeps the take from being a yes', () => {
  const { verdict, because, keys } = judge(byId('five-note-ah'), { keys: 2 });
  expect([verdict, because]).toEqual(['not told', { fault: 'not-sung', key: 2 }]);
  expect(keys.map((k) => k.verdict)).toEqual(['yes', 'yes', 'not told']);
});

test('where chest is carried through, what crosses is no yes; where colour tells nothing it is not told', () => {
  const asked = askedOf(byId('five-note-ah'));
  const take = madeTake(laid(asked));
  const withProfile = (profile: typeof take.findings.profile, voice: Parameters<typeof judgeTake>[2] = null) =>
    judgeTake(asked, { ...take, findings: { ...take.findings, profile } }, voice);
  expect(withProfile(madeProfile(take.trace.midi, false))).toMatchObject({ verdict: 'not yet', because: { fault: 'chest-carried' } });
  const untold = madeProfile(take.trace.midi, true).map((n) => ({ ...n, slopeDb: null, firstDb: null }));
  expect(withProfile(untold)).toMatchObject({ verdict: 'not told', because: { fault: 'hand-over-not-heard' } });
  // Keys that stay under the change have nothing to hand over.
  expect(withProfile(untold, { changeMidi: 70, handsOver: null }).verdict).toBe('yes');
  // What can't be used tells nothing.
  const unusable = { ...take, findings: { ...take.findings, quality: { ...take.findings.quality, usable: false } } };
  expect(judgeTake(asked, unusable)).toMatchObject({ verdict: 'not told', because: { fault: 'not-usable' } });
});

test('a colour that changes at once at the same place twice is no blend, and is nothing to an exercise that only crosses', () => {
  const event = (timeS: number) =>
    ({ timeS, midi: 60, fromMidi: 60, toMidi: 60, direction: 'up', kind: 'dip', confidence: 0.9, dipDb: 3 }) as const;
  const judged = (id: string, times: number[]) => {
    const asked = askedOf(byId(id));
    const take = madeTake(laid(asked));
    return judgeTake(asked, { ...take, findings: { ...take.findings, events: times.map(event) } }).because?.fault ?? 'none';
  };
  expect([judged('five-note-ah', [2.2, 6.6]), judged('five-note-ah', [2.2]), judged('rounding-scale', [2.2, 6.6])]).toEqual([
    'changed-at-once',
    'none',
    'none',
  ]);
});

test('softer going up asks for softer notes', () => {
  const e = byId('loud-soft-triad');
  const asked = askedOf(e);
  const take = madeTake(laid(asked));
  const graded = (dbPerSt: number) => ({
    ...take,
    trace: { ...take.trace, levelDb: take.trace.midi.map((m) => (m > 0 ? -20 + dbPerSt * (m - 55) : -70)) },
  });
  expect(judgeTake(asked, graded(-0.8)).verdict).toBe('yes');
  expect(judgeTake(asked, graded(0.8)).because?.fault).toBe('not-softer');
});

test('reasons are quiet sentences', () => {
  expect(inWords({ fault: 'leapt', midi: 65, key: 2 }, 5)).toBe('The third key leapt at F4.');
  expect(inWords({ fault: 'wrong-note', midi: 60, by: -1.1, key: 0 }, 1)).toBe('It had another note for C4: a semitone lower.');
  expect(judgementInWords(judge(byId('five-note-ah')))).toBe('Every key went through as asked.');
});

describe('simulated voices', () => {
  const crossing = (id: string) => {
    const e = byId(id);
    // A mezzo changes at A4: keys that carry the pattern across it.
    return { e, keys: id === 'long-siren' ? [62, 63] : [64, 65] };
  };
  const heard = (id: string, style: CrossingStyle, seed: number) => {
    const { e, keys } = crossing(id);
    const asked: Asked = { exercise: e, sound: 'ah', keys, tempo: e.tempo[1] };
    const { pcm } = sing(
      typicalProfile('mezzo', style),
      { kind: 'exercise', keys: laid(asked) },
      { seed, vowel: 'ah', sampleRate: 22050, snrDb: 45 },
    );
    return hearExercise(pcm, asked, { changeMidi: 69, handsOver: null }).judgement;
  };
  test.each(['five-note-ah', 'long-siren'])('%s: a blend is a yes, a flip is not yet, pulled chest is never a yes', (id) => {
    expect(heard(id, 'blend', 1)).toMatchObject({ verdict: 'yes' });
    expect(heard(id, 'flip', 2)).toMatchObject({ verdict: 'not yet', because: { fault: 'leapt' } });
    expect(heard(id, 'pulled', 3).verdict).not.toBe('yes');
  });
});
