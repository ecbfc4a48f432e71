import { analyseTake } from '../take/analyse';
import { seededRandom } from '../signal/stats';
import type { Pcm } from '../voice/types';
import { agreement } from './agreement';
import { soundsOf } from './drawn-sounds';
import { answered, NO_ANSWERS, thresholdOf } from './staircase';
import { makeTrial } from './trial';
import { EAR_TASKS, EarRecord, EarTask, Trial } from './types';

const powerOf = ({ samples }: Pcm) => samples.reduce((sum, x) => sum + x * x, 0);

describe('what is asked can be heard', () => {
  // The analysis is the ideal listener: it knows the sound only, and answers from what it finds there.
  const LISTENS: Partial<Record<EarTask, (trial: Trial) => number>> = {
    place(trial) {
      const { events } = analyseTake(soundsOf(trial)[0], 'siren').findings;
      const at = events.find((e) => e.direction === 'up' && e.kind === 'flip')?.midi ?? 0;
      const off = trial.choices.map((c) => (c.kind === 'note' ? Math.abs(c.midi - at) : Infinity));
      return off.indexOf(Math.min(...off));
    },
    louder(trial) {
      const [first, second] = soundsOf(trial).map(powerOf);
      return first > second ? 0 : 1;
    },
  };
  test.each([
    ['place', 0.2, 40],
    ['louder', 1, 40],
  ] as const)('%s: an ideal listener is right in over 95 % at %d', (task, level, n) => {
    const right = Array.from({ length: n }, (_, i) => makeTrial(task, level, i + 1)).filter((t) => LISTENS[task]!(t) === t.right).length;
    expect(right / n).toBeGreaterThan(0.95);
  });

  test('the four ways of crossing sound as they are called: a leap where one flips, none where one blends or toggles', () => {
    const heard = Array.from({ length: 40 }, (_, i) => makeTrial('name', 0.2, i + 1)).map((trial) => {
      const right = trial.choices[trial.right];
      const { events } = analyseTake(soundsOf(trial)[0], 'siren').findings;
      return { style: right.kind === 'style' ? right.style : '', leapt: events.some((e) => e.kind === 'flip') };
    });
    const share = (style: string) => {
      const of = heard.filter((h) => h.style === style);
      return of.filter((h) => h.leapt).length / of.length;
    };
    expect(share('flip')).toBe(1);
    for (const style of ['toggle', 'blend', 'pulled']) expect(share(style)).toBeLessThan(0.1);
  });
});

test('trials are the same from the same seed, have one right answer among others, and grow harder', () => {
  for (const task of EAR_TASKS)
    for (let seed = 1; seed <= 200; seed++) {
      const [plain, hard] = [0, 1].map((level) => makeTrial(task, level, seed));
      expect(makeTrial(task, 0, seed)).toEqual(plain);
      expect(hard.size).toBeLessThan(plain.size);
      expect(new Set(plain.choices.map((c) => JSON.stringify(c))).size).toBe(plain.choices.length);
      expect(plain.choices[plain.right]).toBeDefined();
    }
  // No answer is right more often than the others.
  for (const task of EAR_TASKS) {
    const { length } = makeTrial(task, 0, 1).choices;
    const counts = new Array<number>(length).fill(0);
    for (let seed = 1; seed <= 1000; seed++) counts[makeTrial(task, 0, seed).right]++;
    for (const n of counts) expect(Math.abs(n / 1000 - 1 / length)).toBeLessThan(0.05);
  }
});

describe('the staircase', () => {
  /** An ear that is sure at 0, at chance at 1, and in between by a curve with its middle at `middle`. */
  const ear = (middle: number, chance: number) => (level: number) => chance + (1 - chance) / (1 + Math.exp((level - middle) / 0.07));
  const run = (isRight: (level: number) => number, n: number, seed: number) => {
    const random = seededRandom(seed);
    const asked: { level: number; right: boolean }[] = [];
    let record: EarRecord = NO_ANSWERS;
    for (let i = 0; i < n; i++) {
      const right = random() < isRight(record.level);
      asked.push({ level: record.level, right });
      record = answered(record, right);
    }
    return { record, asked };
  };

  test.each([
    [0.3, 0.25],
    [0.6, 0.25],
    [0.5, 0.5],
  ])('settles where an ear with its middle at %d, and chance %d, is right four times in five', (middle, chance) => {
    const curve = ear(middle, chance);
    const runs = Array.from({ length: 40 }, (_, i) => run(curve, 120, i + 1));
    const settled = runs.flatMap((r) => r.asked.slice(40));
    // Within a tenth of its aim.
    expect(Math.abs(settled.filter((a) => a.right).length / settled.length - 0.8)).toBeLessThan(0.08);
    const found = runs.map((r) => curve(thresholdOf(r.record)!));
    expect(Math.abs(found.reduce((s, x) => s + x, 0) / found.length - 0.8)).toBeLessThan(0.08);
  });

  test('one who guesses is asked what is plain, and is right by chance; one who knows is led to the hardest', () => {
    for (const [task, chance] of [
      ['place', 0.25],
      ['louder', 0.5],
    ] as const) {
      const guess = run(() => chance, 400, 3);
      expect(Math.abs(guess.record.right / 400 - chance)).toBeLessThan(0.07);
      expect(guess.asked.slice(50).reduce((s, a) => s + a.level, 0) / 350).toBeLessThan(0.15);
      expect(makeTrial(task, guess.record.level, 1).choices).toHaveLength(Math.round(1 / chance));
    }
    expect(run(() => 1, 60, 1).record).toMatchObject({ level: 1, answers: 60, right: 60 });
    expect(thresholdOf(run(() => 1, 60, 1).record)).toBeNull();
  });
});

describe('agreement', () => {
  /** Two raters over a table of counts, rows the one, columns the other. */
  const rated = (table: readonly (readonly number[])[]) => {
    const pairs = table.flatMap((row, a) => row.flatMap((n, b) => Array.from({ length: n }, () => [a, b] as const)));
    return agreement(
      pairs.map(([a]) => a),
      pairs.map(([, b]) => b),
    )!;
  };
  test('Cohen’s kappa as worked by hand, the example of two readers of 50 proposals (from memory): 20 and 15 alike of 50, kappa 0.40', () => {
    expect(
      rated([
        [20, 5],
        [10, 15],
      ]),
    ).toMatchObject({ n: 50, share: 0.7, kappa: expect.closeTo(0.4, 10) as number });
  });
  /** Tables drawn once, and what scikit-learn 1.9.1 (`cohen_kappa_score`) gives for them. */
  test.each<[number[][], number]>([
    [
      [
        [7, 1],
        [2, 2],
      ],
      0.4,
    ],
    [
      [
        [21, 2],
        [5, 22],
      ],
      0.720893141946,
    ],
    [
      [
        [9, 0, 3],
        [1, 8, 6],
        [2, 2, 9],
      ],
      0.477611940299,
    ],
    [
      [
        [5, 0, 1, 0],
        [0, 4, 0, 0],
        [0, 1, 5, 0],
        [0, 1, 0, 8],
      ],
      0.838012958963,
    ],
    [
      [
        [14, 2, 2, 4, 2],
        [3, 22, 1, 1, 2],
        [1, 1, 14, 1, 1],
        [1, 1, 2, 20, 2],
        [1, 1, 4, 0, 17],
      ],
      0.655502392344,
    ],
  ])('kappa of %j as a statistics library has it', (table, kappa) => {
    expect(rated(table).kappa).toBeCloseTo(kappa, 11);
  });
  test('alike in all is 1, alike as chance has it 0, against one another under 0; with one name only it can’t be told', () => {
    expect(
      rated([
        [10, 0],
        [0, 10],
      ]).kappa,
    ).toBe(1);
    expect(
      rated([
        [25, 25],
        [25, 25],
      ]).kappa,
    ).toBeCloseTo(0, 10);
    expect(
      rated([
        [0, 10],
        [10, 0],
      ]).kappa,
    ).toBe(-1);
    expect(rated([[10]]).kappa).toBeNull();
    expect(agreement([], [])).toBeNull();
    expect(() => agreement([1], [])).toThrow(RangeError);
  });
});
