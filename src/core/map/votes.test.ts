import { inEnglish } from '../format/say';
import type { TakeEvent } from '../take/types';
import { insecureNotes } from './insecure';
import { recencyOf } from './recency';
import type { CoachMark, PooledNote, TakeEvidence, Vote } from './types';
import { COACH_WEIGHT, votesOf } from './votes';

/** A slide up from C4 to C5 in which some changes were heard, a second a semitone and a half. */
function slide(events: Partial<TakeEvent>[], marks: Partial<CoachMark>[] = []): TakeEvidence {
  const made = events.map((e): TakeEvent => {
    const midi = e.midi ?? 66;
    return { timeS: 4, midi, fromMidi: midi, toMidi: midi + 3, direction: 'up', kind: 'flip', confidence: 0.9, dipDb: 0, ...e };
  });
  const legs = [{ startS: 0, endS: 8, direction: 'up', lowestMidi: 60, highestMidi: 72, crossOvers: [] }];
  return {
    takeId: 't',
    findings: { events: made, legs } as unknown as TakeEvidence['findings'],
    marks: marks.map((m, i): CoachMark => ({ id: String(i), timeS: 4, midi: 66, direction: 'up', verdict: 'accept', by: 'coach', ...m })),
  };
}
const shortly = (votes: Vote[]) => votes.map(({ source, midi, kind, weight }) => [source, midi, kind, Number(weight.toFixed(2))]);

describe('votes', () => {
  test('a change counts by how sure it was heard, less the older it is; a crack half', () => {
    expect(shortly(votesOf(slide([{}])))).toEqual([['machine', 66, 'flip', 0.9]]);
    expect(shortly(votesOf(slide([{}]), 0.5))).toEqual([['machine', 66, 'flip', 0.45]]);
    expect(shortly(votesOf(slide([{ kind: 'crack' }])))).toEqual([['machine', 66, 'crack', 0.45]]);
  });

  test('where the coach spoke the machine is silent: agreed, elsewhere, or nothing there', () => {
    expect(shortly(votesOf(slide([{}], [{ verdict: 'accept' }])))).toEqual([['coach', 66, 'flip', COACH_WEIGHT]]);
    expect(shortly(votesOf(slide([{}], [{ verdict: 'move', midi: 68 }])))).toEqual([['coach', 68, 'flip', COACH_WEIGHT]]);
    expect(votesOf(slide([{}], [{ verdict: 'reject' }]))).toEqual([]);
    // A third of a second away it speaks of something else.
    expect(shortly(votesOf(slide([{}], [{ verdict: 'reject', timeS: 4.5 }])))).toEqual([['machine', 66, 'flip', 0.9]]);
  });

  test('what the coach adds stands beside what was heard, and lies in the slide it was marked in', () => {
    const votes = votesOf(slide([{ timeS: 2, midi: 63 }], [{ verdict: 'add', timeS: 6, midi: 69 }]));
    expect(shortly(votes)).toEqual([
      ['machine', 63, 'flip', 0.9],
      ['coach', 69, 'blend', COACH_WEIGHT],
    ]);
    expect(votes.map((v) => v.leg)).toEqual([0, 0]);
    expect(votesOf(slide([], [{ verdict: 'add', timeS: 20 }]))[0].leg).toBe(-1);
  });

  test('the coach’s ear weighs more than the singer’s feeling, that more than the machine’s surest', () => {
    const weight = (by: 'coach' | 'singer') => votesOf(slide([], [{ verdict: 'add', by }]))[0].weight;
    const [machine] = votesOf(slide([{ confidence: 1 }]));
    expect([weight('coach') > weight('singer'), weight('singer') > machine.weight]).toEqual([true, true]);
  });
});

test('what was heard two months before the newest take counts half, four months a quarter; without dates everything counts', () => {
  const at = (days: number): TakeEvidence => ({ ...slide([]), recordedAt: Date.UTC(2026, 0, 1) + days * 86_400_000 });
  const all = [at(0), at(60), at(120)];
  expect(all.map((t) => recencyOf(t, all))).toEqual([0.25, 0.5, 1]);
  expect(recencyOf(slide([]), all)).toBe(1);
});

describe('insecure notes', () => {
  const NOTES = Array.from({ length: 13 }, (_, i): PooledNote => ({ midi: 60 + i, db: -20, clarity: 0.99, jitterCents: 4 }));
  const withNote = (midi: number, more: Partial<PooledNote>) => NOTES.map((n) => (n.midi === midi ? { ...n, ...more } : n));
  const of = (notes: PooledNote[], votes: Vote[] = [], takes = [slide([]), slide([])]) =>
    insecureNotes(takes, notes, votes).map((n) => [n.midi, inEnglish(n.because)]);

  test('an even voice has none, and a handful of notes says nothing', () => {
    expect(of(NOTES)).toEqual([]);
    expect(of(NOTES.slice(0, 4), votesOf(slide([], [{ verdict: 'add', by: 'singer', midi: 61 }])))).toEqual([]);
  });

  test('what the singer feels counts by itself, blends never', () => {
    const feels = votesOf(slide([], [{ verdict: 'add', by: 'singer', midi: 66 }]));
    expect(of(NOTES, feels).map(([midi]) => midi)).toContain(66);
    const blends = votesOf(slide([], [{ verdict: 'add', midi: 66 }])).map((v): Vote => ({ ...v, kind: 'blend' }));
    expect(of(NOTES, [...blends, ...blends])).toEqual([]);
  });

  test('a change in every pass is one, with how often it was heard', () => {
    const votes = [...votesOf(slide([{}])), ...votesOf(slide([{}]))];
    expect(of(NOTES, votes)).toEqual([[66, 'F#4: 2 audible changes in 2 passes.']]);
  });

  test('a hole, rasp and push are told from their neighbours, and not at the ends of the voice', () => {
    expect(of(withNote(66, { db: -28 }))).toEqual([[66, 'F#4: 8 dB softer than its neighbours.']]);
    expect(of(withNote(66, { clarity: 0.7, jitterCents: 16 }))[0][1]).toContain('raspy');
    expect(of(withNote(66, { db: -10, jitterCents: 12 }))[0][1]).toContain('pushed: 10 dB louder');
    // Loud or breathy alone is no strain.
    expect(of(withNote(66, { db: -10 }))).toEqual([]);
    expect(of(withNote(66, { clarity: 0.7 }))).toEqual([]);
    for (const end of [60, 61, 71, 72]) expect(of(withNote(end, { db: -30, jitterCents: 30 }))).toEqual([]);
  });

  test('the worst stand first, five at most', () => {
    const notes = NOTES.map((n, i) => (i >= 2 && i <= 10 ? { ...n, jitterCents: i % 2 ? 4 : 12 + i } : n));
    const worst = of(notes);
    expect(worst.length).toBeLessThanOrEqual(5);
    const scores = insecureNotes([slide([])], notes, []).map((n) => n.score);
    expect([...scores].sort((a, b) => b - a)).toEqual(scores);
  });
});
