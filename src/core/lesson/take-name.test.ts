import { anchorsFor, askOf, advance, beginCourse } from './course';
import { PROTOCOLS } from './protocols';
import { stepOfTake, takeName } from './take-name';

test('all takes of a step carry the same word, whatever their keys and numbers; other steps another', () => {
  for (const protocol of PROTOCOLS.filter((p) => p.steps.length > 0)) {
    const words = new Map<number, Set<string>>();
    let course = advance(beginCourse({ ...protocol, asksHealth: false }, anchorsFor(null, 'mezzo')), { kind: 'taken' });
    for (let takes = 0; takes < 200; takes++) {
      const ask = askOf(course);
      if (!ask) break;
      words.set(course.at, (words.get(course.at) ?? new Set()).add(stepOfTake(takeName(ask, null))));
      course = advance(course, { kind: takes % 40 === 39 ? 'stop' : 'taken' });
    }
    expect([...words.values()].map((of) => of.size)).toEqual([...words.keys()].map(() => 1));
    expect(new Set([...words.values()].map(([word]) => word)).size).toBe(words.size);
  }
  expect([stepOfTake('Sirens'), stepOfTake('Five notes on ah in F#4'), stepOfTake('Straw 2 in hand')]).toEqual([
    'Sirens',
    'Five notes on ah',
    'Straw 2 in hand',
  ]);
});
