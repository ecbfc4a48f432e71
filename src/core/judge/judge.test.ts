import { SHELF } from '../exercise/shelf';
import { inEnglish } from '../format/say';
import { renderKey } from '../exercise/render';
import type { Exercise } from '../exercise/types';
import { MISTAKES } from '../sim/score';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import type { CrossingStyle } from '../sim/profile';
import type { TakeEvent } from '../take/types';
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
  // Nothing known of the voice: keys above where any voice changes have nothing to hand over either.
  const high = askedOf(byId('five-note-ah'), [74, 75]);
  const aloft = madeTake(laid(high));
  const carried = { ...aloft, findings: { ...aloft.findings, profile: madeProfile(aloft.trace.midi, false) } };
  expect([judgeTake(high, carried).verdict, judgeTake(high, carried, { changeMidi: 78, handsOver: null }).because?.fault]).toEqual([
    'yes',
    'chest-carried',
  ]);
  // What can't be used tells nothing.
  const unusable = { ...take, findings: { ...take.findings, quality: { ...take.findings.quality, usable: false } } };
  expect(judgeTake(asked, unusable)).toMatchObject({ verdict: 'not told', because: { fault: 'not-usable' } });
});

test('a blend of chest may go a little over the change; a third over it, carrying chest is pulling it', () => {
  const asked = askedOf(byId('nay-octave'));
  expect(byId('nay-octave').aim).toBe('chest-blend');
  const take = madeTake(laid(asked));
  const carried = { ...take, findings: { ...take.findings, profile: madeProfile(take.trace.midi, false) } };
  const top = Math.max(...laid(asked).flatMap((key) => key.notes.map((n) => n.midi)));
  const over = (st: number) => judgeTake(asked, carried, { changeMidi: top - st, handsOver: null });
  expect(over(3).verdict).toBe('yes');
  expect(over(5)).toMatchObject({ verdict: 'not yet', because: { fault: 'chest-carried' } });
  expect(judgeTake(asked, take, { changeMidi: top - 5, handsOver: null }).verdict).toBe('yes');
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

describe('what a room does to a pitch curve is no mistake of the voice', () => {
  type Curve = ReturnType<typeof madeTake>['trace'];
  /** A take sung as asked, and then changed between two moments of its first key (seconds after the key’s first note). */
  const changed = (id: string, change: (trace: Curve, at: (s: number) => number) => void, asked = askedOf(byId(id))) => {
    const take = madeTake(laid(asked));
    const first = laid(asked)[0].notes[0].startS;
    change(take.trace, (s) => Math.round((first + 0.05 + s) / take.trace.hopS));
    const { verdict, because } = judgeTake(asked, take);
    return [verdict, because?.fault ?? null];
  };
  const shift = (fromS: number, toS: number, by: number) => (trace: Curve, at: (s: number) => number) => {
    for (let i = at(fromS); i < at(toS); i++) if (trace.midi[i] > 0) trace.midi[i] += by;
  };
  const noteOf = (id: string, n: number) => {
    const { notes } = laid(askedOf(byId(id)))[0];
    return [notes[n].startS - notes[0].startS, notes[n].endS - notes[0].startS] as const;
  };

  test('a pitch misread by a whole ratio, where a note meets the one still ringing', () => {
    const [from, to] = noteOf('five-note-ah', 4);
    // A fifth over its root: both are harmonics of the octave under the root, the third and the second.
    for (const ratio of [3, 4, 5, 6, 1 / 3])
      expect([ratio, ...changed('five-note-ah', shift(from, to, -12 * Math.log2(ratio)))]).toEqual([ratio, 'yes', null]);
    expect(changed('five-note-ah', shift(from, from + 0.6 * (to - from), -12))).toEqual(['yes', null]);
  });

  test('a whole note an octave away may have been sung there: it is not told; a whole key there, or what is off by no ratio, is not yet', () => {
    const [from, to] = noteOf('five-note-ah', 4);
    expect(changed('five-note-ah', shift(from, to, -12))).toEqual(['not told', 'not-heard']);
    const [, end] = noteOf('five-note-ah', laid(askedOf(byId('five-note-ah')))[0].notes.length - 1);
    expect(changed('five-note-ah', shift(0, end, -12))).toEqual(['not yet', 'wrong-note']);
    expect(changed('five-note-ah', shift(from, to, -9))).toEqual(['not yet', 'wrong-note']);
  });

  test('a pitch that the key asks for elsewhere was sung in the wrong place, whatever ratio it is away', () => {
    const e = SHELF.find((x) => x.id === 'octave-and-a-fifth')!;
    const { notes } = laid(askedOf(e))[0];
    const top = notes.findIndex((n) => n.midi - notes[0].midi === 19);
    const [from, to] = noteOf(e.id, top);
    expect(changed(e.id, shift(from, to, -19.02))).toEqual(['not yet', 'wrong-note']);
  });

  test('a slide that falls back for a moment to what still rings is no leap; one that goes ahead is', () => {
    const [, top] = noteOf('long-siren', 0);
    const back = (by: number) => changed('long-siren', shift(0.5 * top, 0.5 * top + 0.12, by));
    expect(back(-2.5)).toEqual(['yes', null]);
    const ahead = (trace: Curve, at: (s: number) => number) => {
      for (let i = at(0.5 * top), since = 0; i < at(top); i++, since++) trace.midi[i] += 3 * Math.exp(-since / 40);
    };
    expect(changed('long-siren', ahead)).toEqual(['not yet', 'leapt']);
  });

  test('a note under which the one before rings on did not leap; one that leaves both did', () => {
    const id = SHELF.find((e) =>
      e.steps.some((step, i) => i > 0 && !step.slide && !e.steps[i - 1].slide && step.beats >= 3 && step.degree !== e.steps[i - 1].degree),
    )!.id;
    const asked = askedOf(byId(id));
    const { notes } = laid(asked)[0];
    const n = notes.findIndex(
      (note, i) => i > 0 && !note.slide && !notes[i - 1].slide && note.endS - note.startS > 1 && note.midi !== notes[i - 1].midi,
    );
    const from = notes[n].startS - notes[0].startS;
    const step = notes[n - 1].midi - notes[n].midi;
    expect(changed(id, shift(from, from + 0.4, step))[1]).not.toBe('leapt');
    // Between the two pitches, while the note and what rings sound at once.
    expect(changed(id, shift(from + 0.1, from + 0.4, 0.6 * step))[1]).not.toBe('leapt');
    expect(changed(id, shift(from, from + 0.4, -Math.sign(step) * 3))[1]).toBe('leapt');
  });

  test('a pitch lost while the voice goes on is no stop, whatever one frame of it is; silence is', () => {
    const [from] = noteOf('long-siren', 1);
    const hole = (levelDb: (k: number) => number) => (trace: Curve, at: (s: number) => number) => {
      for (let i = at(from - 0.3), k = 0; i < at(from - 0.1); i++, k++) {
        trace.midi[i] = 0;
        trace.levelDb[i] = levelDb(k);
      }
    };
    expect(
      changed(
        'long-siren',
        hole((k) => (k === 7 ? -45 : -22)),
      )[1],
    ).not.toBe('stopped');
    expect(
      changed(
        'long-siren',
        hole(() => -45),
      ),
    ).toEqual(['not yet', 'stopped']);
    // What goes on as softly as the hole was did not stop there.
    const softer = (trace: Curve, at: (s: number) => number) => {
      hole(() => -36)(trace, at);
      for (let i = at(from - 0.1); i < at(from + 2); i++) if (trace.midi[i] > 0) trace.levelDb[i] = -37;
    };
    expect(changed('long-siren', softer)[1]).not.toBe('stopped');
  });
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

test('a small leap in one key of three, where the others pass, is not told; a plain one, one in two keys or where no other passes is not yet', () => {
  const e = byId('five-note-ah');
  const flips = (by: number, places: [key: number, midi: number][], keys = KEYS) => {
    const asked = askedOf(e, keys);
    const take = madeTake(laid(asked));
    const starts = laid(asked).map((_, k, all) => all.slice(0, k).reduce((s, key) => s + key.totalS, 0));
    const events = places.map(([key, midi]): TakeEvent => {
      const { notes } = laid(asked)[key];
      const note = notes.find((n) => n.midi === midi)!;
      const timeS = starts[key] + (note.startS + note.endS) / 2;
      return { timeS, midi, fromMidi: midi, toMidi: midi + by, direction: 'up', kind: 'flip', confidence: 0.9, dipDb: 0 };
    });
    return judgeTake(asked, { ...take, findings: { ...take.findings, events } });
  };
  const once = flips(2, [[1, 58]]);
  expect(once).toMatchObject({ verdict: 'not told', because: { fault: 'leapt-once', midi: 58, key: 1 } });
  expect(inEnglish(judgementInWords(once))).toBe('The second key may have leapt at Bb3, where the others did not.');
  expect(flips(3, [[1, 58]]).because).toMatchObject({ fault: 'leapt', key: 1 });
  const twice: [number, number][] = [
    [0, 59],
    [1, 60],
  ];
  expect(flips(2, twice).verdict).toBe('not yet');
  expect(flips(2, [[2, 64]]).because).toMatchObject({ fault: 'leapt', key: 2 });
});

test('reasons are quiet sentences', () => {
  expect(inEnglish(inWords({ fault: 'leapt', midi: 65, key: 2 }, 5))).toBe('The third key leapt at F4.');
  // In the key of A flat that note is a D flat.
  expect(inEnglish(inWords({ fault: 'leapt', midi: 61 }, 1, 56))).toBe('It leapt at Db4.');
  expect(inEnglish(inWords({ fault: 'wrong-note', midi: 60, by: -1.1, key: 0 }, 1))).toBe('It had another note for C4: a semitone lower.');
  expect(inEnglish(judgementInWords(judge(byId('five-note-ah'))))).toBe('Every key went through as asked.');
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
