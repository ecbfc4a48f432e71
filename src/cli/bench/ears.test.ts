import { soundsOf } from '../../core/ears/drawn-sounds';
import { makeTrial } from '../../core/ears/trial';
import type { EarTask, Trial } from '../../core/ears/types';
import { fitLine, median } from '../../core/signal/stats';
import { Heard, praatHears, praatIsThere } from './praat';

/** A question of the ear room, and what Praat hears in its sounds: all that the listeners here know. */
interface Asked {
  trial: Trial;
  heard: Heard[];
}
const ANSWERED = 40;
/** Questions that a listener is told the answers of, to learn where to draw its lines, are others than those it is asked. */
const LEARNT_FROM = 10_000;

function asked(task: EarTask, level: number, first = 1): Asked[] {
  const trials = Array.from({ length: ANSWERED }, (_, i) => makeTrial(task, level, first + i));
  const sounds = trials.map(soundsOf);
  const heard = praatHears(sounds.flat());
  const before = sounds.map((_, i) => sounds.slice(0, i).flat().length);
  return trials.map((trial, i) => ({ trial, heard: heard.slice(before[i], before[i] + sounds[i].length) }));
}
const rightIn = (all: readonly Asked[], answers: (heard: readonly Heard[], trial: Trial) => number) =>
  all.filter(({ trial, heard }) => answers(heard, trial) === trial.right).length / all.length;
/** Halfway between the highest of what is heard of the one kind and the lowest of the other. */
const between = (low: readonly number[], high: readonly number[]) => (Math.max(...low) + Math.min(...high)) / 2;

/** Frames of 5 ms: a step is one from so many to as many, a hole is seen from so many beside it. */
const FRAMES = 5;
const ASIDE = 10;

/** The greatest step up from five frames to the next five, semitones, and the last pitch before it. */
function greatestStep({ voiced }: Heard): { st: number; midi: number } {
  let greatest = { st: 0, midi: 0 };
  const middle = (from: number) => median(voiced.slice(from, from + FRAMES).map((p) => p.midi));
  for (let i = FRAMES; i + FRAMES <= voiced.length; i++) {
    const st = middle(i) - middle(i - FRAMES);
    // Two frames may be on the way already.
    if (st > greatest.st) greatest = { st, midi: voiced[i - 3].midi };
  }
  return greatest;
}

/** The deepest hole in the level away from both ends, dB: as far under what is a twentieth of a second before and after. */
function deepestDip({ voiced }: Heard): number {
  const dips = voiced.slice(ASIDE, -ASIDE).map(({ db }, i) => Math.min(voiced[i].db, voiced[i + 2 * ASIDE].db) - db);
  return Math.max(...dips);
}

const rangeOf = ({ voiced }: Heard) => {
  const midis = voiced.map((p) => p.midi);
  return Math.max(...midis) - Math.min(...midis);
};

// Wanted: an ideal listener is right in over 95 %.
(praatIsThere ? describe : describe.skip)('who hears as Praat does is right in over 95 %', () => {
  test('where the voice leaps, the pitch before the greatest step', () => {
    const right = rightIn(asked('place', 0.2), ([slide], { choices }) => {
      const { midi } = greatestStep(slide);
      const off = choices.map((c) => (c.kind === 'note' ? Math.abs(c.midi - midi) : Infinity));
      return off.indexOf(Math.min(...off));
    });
    expect(right).toBeGreaterThan(0.95);
  });

  test('what the voice does: a leap, a hitch, neither, or a slide that stays under the others’ top', () => {
    const learnt = asked('name', 0.2, LEARNT_FROM);
    const [flip, toggle, blend, pulled] = (['flip', 'toggle', 'blend', 'pulled'] as const).map((style) =>
      learnt[0].trial.choices.findIndex((c) => c.kind === 'style' && c.style === style),
    );
    const of = (right: number, told: (heard: Heard) => number) =>
      learnt.filter(({ trial }) => trial.right === right).map(({ heard }) => told(heard[0]));
    const step = (heard: Heard) => greatestStep(heard).st;
    const leap = between(of(toggle, step), of(flip, step));
    const hitch = between(of(blend, deepestDip), of(toggle, deepestDip));
    const short = between(of(pulled, rangeOf), of(blend, rangeOf));
    const right = rightIn(asked('name', 0.2), ([heard]) => {
      if (step(heard) > leap) return flip;
      if (rangeOf(heard) < short) return pulled;
      return deepestDip(heard) > hitch ? toggle : blend;
    });
    expect(right).toBeGreaterThan(0.95);
  });

  test('chest or head, where it is plain: by the first harmonic against the second at such a pitch, a man’s voice apart from a woman’s', () => {
    const learnt = asked('register', 0, LEARNT_FROM);
    const told = ({ heard: [note], trial }: Asked) => ({
      tract: trial.sounds[0].profile.tract,
      midi: median(note.voiced.map((p) => p.midi)),
      db: note.firstOverSecondDb,
    });
    const line = (tract: string, right: number) => {
      const of = learnt.filter((a) => told(a).tract === tract && a.trial.right === right).map(told);
      const { slope, intercept } = fitLine(
        of.map((n) => n.midi),
        of.map((n) => n.db),
      );
      return (midi: number) => intercept + slope * midi;
    };
    const right = asked('register', 0).filter((a) => {
      const { tract, midi, db } = told(a);
      const [chest, head] = [0, 1].map((register) => Math.abs(db - line(tract, register)(midi)));
      return (head < chest ? 1 : 0) === a.trial.right;
    });
    expect(right.length / ANSWERED).toBeGreaterThan(0.95);
  });

  test('which is louder, as near as they ever are', () => {
    expect(rightIn(asked('louder', 1), ([first, second]) => (first.levelDb > second.levelDb ? 0 : 1))).toBeGreaterThan(0.95);
  });
});
