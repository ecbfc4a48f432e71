import { seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import type { CrossingStyle } from '../sim/profile';
import { analyseTake } from '../take/analyse';
import { AGAIN_MS, Candidate, candidatesOf, drawPasses, earsOf, machineOn, Pass, PassName, Said } from './passes';

const heardOf = (style: CrossingStyle) => {
  const profile = typicalProfile('tenor', style);
  const { pcm } = sing(profile, { kind: 'siren', sirens: 2, legS: 2.5 }, { seed: 5, sampleRate: 22050, snrDb: 50 });
  return { profile, findings: analyseTake(pcm, 'siren').findings };
};

describe('what the machine hears in one pass', () => {
  const flip = heardOf('flip');
  const passes = candidatesOf('t', flip.findings, []);

  test('of a voice that flips every way is one pass, with the flip at its own note', () => {
    expect(passes.map((p) => p.direction)).toEqual(['up', 'down', 'up', 'down']);
    for (const { machine, direction } of passes) {
      const [crossing] = flip.profile.crossings;
      expect(machine.name).toBe('flip');
      expect(Math.abs(machine.midi! - (direction === 'up' ? crossing.upMidi : crossing.downMidi))).toBeLessThan(1.5);
    }
  });

  test('is told of the pass it is in, though another analysis cuts it a little otherwise', () => {
    const { startS, endS, direction } = passes[1];
    const cut = { takeId: 't', direction, startS: startS + 0.2, endS: endS - 0.1 };
    expect(machineOn(cut, flip.findings, [])).toEqual(passes[1].machine);
    expect(machineOn({ ...cut, direction: 'up' }, flip.findings, []).midi).not.toBe(passes[1].machine.midi);
    expect(machineOn({ ...cut, startS: 90, endS: 93 }, flip.findings, [])).toEqual({ name: 'none', midi: null });
  });

  test('is a blend where the map found one in several passes, this one among them; else nothing', () => {
    const findings = { ...flip.findings, events: [], legs: flip.findings.legs.map((leg) => ({ ...leg, crossOvers: [] })) };
    const pass = { takeId: 't', startS: passes[2].startS, endS: passes[2].endS, direction: 'up' } as const;
    expect(machineOn(pass, findings, [])).toEqual({ name: 'none', midi: null });
    const vote = { takeId: 't', leg: findings.legs.findIndex((l) => l.startS === pass.startS), midi: 63, source: 'machine' };
    const pooled = [{ votes: [vote] }] as unknown as Parameters<typeof machineOn>[2];
    expect(machineOn(pass, findings, pooled)).toEqual({ name: 'blended', midi: 63 });
    expect(machineOn({ ...pass, takeId: 'other' }, findings, pooled).name).toBe('none');
  });

  test('is not asked of scales, of what can’t be used, of short ways', () => {
    const { findings } = flip;
    expect(candidatesOf('t', { ...findings, task: 'scale' }, [])).toEqual([]);
    expect(candidatesOf('t', { ...findings, quality: { ...findings.quality, usable: false } }, [])).toEqual([]);
    const narrow = findings.legs.map((leg) => ({ ...leg, highestMidi: leg.lowestMidi + 4 }));
    expect(candidatesOf('t', { ...findings, legs: narrow }, [])).toEqual([]);
  });
});

const pass = (takeId: string, startS = 1): Pass => ({ takeId, startS, endS: startS + 3, direction: 'up' });
const candidate = (takeId: string, name: PassName): Candidate => ({
  ...pass(takeId),
  lowestMidi: 50,
  highestMidi: 70,
  machine: { name, midi: name === 'none' ? null : 64 },
});
const said = (takeId: string, name: PassName, more: Partial<Said> & { midi?: number; machineName?: PassName } = {}): Said => ({
  pass: pass(takeId),
  coachId: more.coachId ?? 'me',
  saidAt: more.saidAt ?? 0,
  word: { name, midi: name === 'none' ? null : (more.midi ?? 64) },
  machine: { name: more.machineName ?? 'flip', midi: more.machineName === 'none' ? null : 64 },
  school: more.school ?? 'classical',
});

describe('drawing passes', () => {
  const all = Array.from({ length: 60 }, (_, i) => candidate(`t${i}`, i < 50 ? 'flip' : 'none'));
  const draw = (of: readonly Candidate[], words: readonly Said[], seed: number, n = 8) =>
    drawPasses(of, words, { coachId: 'me', now: 2 * AGAIN_MS, n, random: seededRandom(seed) });

  test('asks as often where the machine hears nothing as where it hears something, and no take twice', () => {
    const draws = Array.from({ length: 200 }, (_, i) => draw([...all, ...all], [], i + 1));
    for (const drawn of draws) expect(new Set(drawn.map((d) => d.takeId)).size).toBe(8);
    const silent = draws.flat().filter((d) => d.machine.name === 'none').length / (8 * 200);
    expect(Math.abs(silent - 0.5)).toBeLessThan(0.05);
  });

  test('leaves out what this coach answered lately, and brings more of what is old or was answered by others', () => {
    const lately = all.slice(0, 55).map((c) => said(c.takeId, 'flip', { saidAt: 1.5 * AGAIN_MS }));
    expect(draw(all, lately, 1).every((d) => Number(d.takeId.slice(1)) >= 55)).toBe(true);
    expect(draw(all, lately, 1)).toHaveLength(5);
    const [theirs, old] = ['other', 'me'].map((coachId) => [said('t0', 'flip', { coachId, saidAt: 0 })]);
    const first = (words: readonly Said[]) =>
      Array.from({ length: 300 }, (_, i) => draw(all.slice(0, 20), words, i + 1, 1)[0].takeId).filter((id) => id === 't0').length;
    expect(first(theirs)).toBeGreaterThan(2 * first([]));
    expect(first(old)).toBeGreaterThan(2 * first([]));
  });

  test('ends where there is nothing left', () => {
    expect(draw([], [], 1)).toEqual([]);
    expect(draw(all.slice(0, 3), [], 1)).toHaveLength(3);
  });
});

describe('how ears compare', () => {
  test('with the machine: kappa of the names, the middle distance of what both placed, and each of its names by itself', () => {
    const words = [
      said('a', 'flip', { midi: 65 }),
      said('b', 'flip', { midi: 66 }),
      said('c', 'none'),
      said('d', 'none', { machineName: 'none' }),
      said('e', 'toggle', { machineName: 'none' }),
    ];
    const { machine, others, self, byName } = earsOf(words, 'me');
    // By hand: alike in 3 of 5; by chance 2/5 * 3/5 + 2/5 * 2/5 = 0.4; (0.6 - 0.4) / 0.6.
    expect(machine!.names).toMatchObject({ n: 5, share: 0.6, kappa: expect.closeTo(1 / 3, 10) as number });
    expect(machine!.placed).toEqual({ n: 2, apartSt: 1.5 });
    expect(byName).toEqual({ flip: { asked: 3, there: 2, alike: 2 }, none: { asked: 2, there: 1, alike: 1 } });
    expect([others, self]).toEqual([null, null]);
  });

  test('with the machine apart for each school the singers are taught by, the one with most passes first', () => {
    const words = [
      said('a', 'flip', { school: 'bridges', midi: 66 }),
      said('b', 'none', { school: 'classical' }),
      said('c', 'flip', { school: 'classical' }),
      said('d', 'flip', { school: 'early-connect', coachId: 'other' }),
    ];
    const { bySchool } = earsOf(words, 'me');
    expect(bySchool.map(({ school, machine }) => [school, machine.names.n, machine.names.share])).toEqual([
      ['classical', 2, 0.5],
      ['bridges', 1, 1],
    ]);
    expect(bySchool[1].machine.placed).toEqual({ n: 1, apartSt: 2 });
  });

  test('with others on the same pass only, and with one’s own of four weeks before', () => {
    const words = [
      said('a', 'flip', { saidAt: 0 }),
      said('a', 'toggle', { saidAt: AGAIN_MS, midi: 67 }),
      said('a', 'toggle', { saidAt: 5, coachId: 'other', midi: 66 }),
      said('b', 'flip', { coachId: 'other' }),
      said('c', 'flip'),
      said('c', 'none', { saidAt: AGAIN_MS - 1 }),
    ];
    const { machine, others, self } = earsOf(words, 'me');
    // The newest word on a pass counts.
    expect(machine!.names.n).toBe(2);
    expect(others).toMatchObject({ names: { n: 1, share: 1 }, placed: { n: 1, apartSt: 1 } });
    expect(self).toMatchObject({ names: { n: 1, share: 0 }, placed: { n: 1, apartSt: 3 } });
    expect(earsOf(words, 'nobody')).toEqual({ machine: null, others: null, self: null, byName: {}, bySchool: [] });
  });
});
