import * as fc from 'fast-check';
import { SCHOOL_IDS } from '../map/schools';
import { FINDING_NAMES } from '../map/types';
import { exerciseById } from '../exercise/shelf';
import { request, voice } from './drawn-voices';
import { planFor } from './plan';
import { isWork } from './types';
import { phasesFor, WAYS } from './ways';
import { Asking, proposedSchool, schoolsFor, STYLES, WISHES } from './which-school';

const asking = (more: Partial<Asking> = {}): Asking => ({ findings: ['flip'], lean: 'balanced', minor: false, ...more });
const first = (more: Partial<Asking>) => schoolsFor(asking(more))[0].id;
const ADULT = { light: false, minor: false };

// Which style is taught which way: common practice, no source.
test.each([
  ['opera', 'classical'],
  ['rock', 'chest-first'],
  ['soul-jazz', 'early-connect'],
  ['pop', 'bridges'],
  ['choir', 'classical'],
] as const)('%s: %s', (style, school) => expect(first({ style })).toBe(school));

test('the voice weighs more than the style: one that pulls chest lets go first, and is told what speaks against stretching it', () => {
  const rock = asking({ style: 'rock', wish: 'power', findings: ['pulled-chest'], lean: 'pushes' });
  const { instead, taught } = proposedSchool(rock, 'chest-first')!;
  expect(instead.id).toBe('release-first');
  expect(instead.speaksFor.join(' ')).toContain('let go before anything else');
  expect(taught.speaksFor.join(' ')).toContain('Rock carries chest high');
  expect(taught.speaksAgainst.join(' ')).toContain('load it further');
});

test('a young voice is never proposed to be stretched or darkened, a light one never to be lightened', () => {
  fc.assert(
    fc.property(
      fc.option(fc.constantFrom(...STYLES), { nil: undefined }),
      fc.option(fc.constantFrom(...WISHES), { nil: undefined }),
      fc.constantFrom(...SCHOOL_IDS),
      fc.uniqueArray(fc.constantFrom(...FINDING_NAMES), { maxLength: 2 }),
      (style, wish, taught, findings) => {
        const young = proposedSchool(asking({ style, wish, findings, minor: true }), taught)?.instead.id;
        expect(['chest-first', 'covered']).not.toContain(young);
        const light = proposedSchool(asking({ style, wish, findings, lean: 'light' }), taught)?.instead.id;
        expect(light).not.toBe('release-first');
        if (style !== 'soul-jazz' && wish !== 'light') expect(light).not.toBe('early-connect');
      },
    ),
  );
});

test('nothing is proposed where nothing was said, or where what is taught fits', () => {
  for (const taught of SCHOOL_IDS)
    for (const lean of ['balanced', 'heavy'] as const)
      // But that a heavy voice isn't stretched further is said unasked.
      if (lean === 'balanced' || taught !== 'chest-first') expect(proposedSchool(asking({ lean }), taught)).toBeNull();
  expect(proposedSchool(asking({ style: 'opera' }), 'classical')).toBeNull();
  expect(proposedSchool(asking({ style: 'opera' }), 'chest-first')!.instead.id).toBe('classical');
});

test('each school has phases of its own: no two go about a flip in the same way', () => {
  const ways = SCHOOL_IDS.map((school) =>
    phasesFor(school, 'flip', ADULT)
      .map((ph) => ph.name)
      .join(' > '),
  );
  expect(new Set(ways).size).toBe(SCHOOL_IDS.length);
  expect(phasesFor('chest-first', 'flip', ADULT)[0].id).toBe('stretch');
  expect(phasesFor('early-connect', 'flip', ADULT)[0].id).toBe('from-above');
  // What the voice doesn't bear isn't begun with.
  expect(phasesFor('chest-first', 'flip', { ...ADULT, minor: true })[0].id).toBe('lighten');
  expect(phasesFor('chest-first', 'pulled-chest', ADULT)[0].id).toBe('release');
  expect(phasesFor('early-connect', 'toggle', { ...ADULT, light: true })[0].id).toBe('smooth');
});

test('what a phase is for is in its week, in every school', () => {
  for (const school of SCHOOL_IDS) {
    const asked = (phaseId: string) =>
      planFor(request('mezzo', voice('mezzo', 'flip'), { school, phaseId, grades: { crossing: 4, head: 4, evenness: 4, chest: 3 } }))!;
    for (const phase of asked('lighten').phases) {
      const { items } = asked(phase.id);
      expect([school, phase.id, items.filter(isWork).some((it) => phase.likes.includes(it.exerciseId))]).toEqual([school, phase.id, true]);
    }
    for (const id of [...(WAYS[school].begins?.likes ?? []), ...(WAYS[school].join?.likes ?? [])])
      expect([id, exerciseById(id).schools.length === 0 || exerciseById(id).schools.includes(school)]).toEqual([id, true]);
  }
});
