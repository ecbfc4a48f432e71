import * as fc from 'fast-check';
import { SHELF } from '../exercise/shelf';
import { MATERIALS } from '../exercise/types';
import { SCHOOL_IDS } from '../map/schools';
import { FINDING_NAMES, FindingName, Passaggio, VoiceMap } from '../map/types';
import { bareMap } from './made-map';
import { usualRequest } from './request';
import { PlanRequest } from './types';
import { expectedChange, VOICE_TYPES, VoiceTypeId, voiceType } from './voice-types';

/** For tests: voices drawn at random, and what may be asked for them. */
export interface Drawn {
  type: VoiceTypeId;
  findings: FindingName[];
  /** Off the type's usual limits and change, semitones. */
  lowSt: number;
  highSt: number;
  changeSt: number;
  lean: number | null;
}

/** The map of a voice of a type with findings at its change. */
export function mapOf({ type, findings, lowSt, highSt, changeSt, lean }: Drawn): VoiceMap {
  const { low, high } = voiceType(type);
  const change = expectedChange(type) + changeSt;
  const crossing = findings.some((f) => f === 'flip' || f === 'toggle' || f === 'blended');
  const passaggio = {
    midi: change,
    lowMidi: change - 1,
    highMidi: change + 1,
    upMidi: change,
    downMidi: change - 1,
    name: 'flip',
    confidence: 0.9,
    votes: [],
  };
  return {
    ...bareMap(low + lowSt - 2, high + highSt + 2),
    usable: bareMap(low + lowSt, high + highSt).extreme,
    passaggi: crossing ? [passaggio as unknown as Passaggio] : [],
    findings: findings.map((name, i) => ({ name, midi: change, confidence: 0.9 - 0.2 * i, because: '', impression: false, takeIds: [] })),
    weight: lean === null ? null : { lean, because: [], impression: false },
  };
}

/** The map of an ordinary voice of a type. */
export const voice = (type: VoiceTypeId, ...findings: FindingName[]) =>
  mapOf({ type, findings, lowSt: 0, highSt: 0, changeSt: 0, lean: null });
export const request = (type: VoiceTypeId, map: VoiceMap, more: Partial<PlanRequest> = {}) =>
  usualRequest({ map, voiceType: type, school: 'classical', shelf: SHELF, ...more });

export const drawnVoice = fc.record({
  type: fc.constantFrom(...VOICE_TYPES.map((t) => t.id)),
  findings: fc.uniqueArray(fc.constantFrom(...FINDING_NAMES), { maxLength: 3 }),
  lowSt: fc.integer({ min: -4, max: 2 }),
  highSt: fc.integer({ min: -2, max: 6 }),
  changeSt: fc.integer({ min: -3, max: 3 }),
  lean: fc.option(fc.double({ min: -1, max: 1, noNaN: true })),
});
export const drawnRequest = fc.record({
  drawn: drawnVoice,
  school: fc.constantFrom(...SCHOOL_IDS),
  minutesADay: fc.constantFrom(5, 10, 15, 20, 30),
  materials: fc.subarray([...MATERIALS]),
  phase: fc.integer({ min: 0, max: 3 }),
  minor: fc.boolean(),
  grades: fc.record({
    crossing: fc.option(fc.integer({ min: 1, max: 6 }), { nil: undefined }),
    chest: fc.option(fc.integer({ min: 1, max: 6 }), { nil: undefined }),
  }),
  today: fc.option(fc.record({ hoarse: fc.boolean(), ill: fc.boolean(), pain: fc.boolean() })),
});
export type DrawnRequest = typeof drawnRequest extends fc.Arbitrary<infer T> ? T : never;
export const asRequest = ({ drawn, ...more }: DrawnRequest) => request(drawn.type, mapOf(drawn), more);
