import { Said, said } from '../words/said';
import type { CrossingName, Finding, Passaggio, VoiceMap } from './types';

/** Of passes in which the machine heard a change of a kind, how many coaches heard blind, and in how many of them they heard a change too. */
export type Trust = Partial<Record<CrossingName, { asked: number; there: number }>>;

/** The machine is believed to begin with, as if it had been right so often (this house's: one answer hardly counts, ten in a row halve it). */
const BELIEVED = 10;
/** From so many answers on it is said (this house's). */
const TOLD_FROM = 10;

/**
 * How much the machine's word on a kind of change weighs with coaches who heard it blind, 0..1: the mean of a beta distribution
 * (as many misses as they found, `BELIEVED` hits to begin with); 1 where they were not asked.
 *
 * @example weightOf({ flip: { asked: 15, there: 5 } }, 'flip') // 0.6
 */
export function weightOf(trust: Trust, name: CrossingName): number {
  const { asked, there } = trust[name] ?? { asked: 0, there: 0 };
  return (there + BELIEVED) / (asked + BELIEVED);
}

/** What the machine says of a change, and what the studio's ears say of it once there are enough answers. */
function becauseOf(trust: Trust, name: CrossingName, because: Said): Said {
  const of = trust[name];
  return of && of.asked >= TOLD_FROM && of.there < of.asked
    ? said('{because} Heard blind, you found {there} of {asked} such changes.', { because, there: of.there, asked: of.asked })
    : because;
}

/** Whether it rests on what the machine alone heard: not on a coach's mark or pin. */
const isMachines = ({ votes }: Passaggio) => votes.length > 0 && votes.every((vote) => vote.source !== 'coach');

const isCrossing = (name: Finding['name']): name is CrossingName => name === 'flip' || name === 'toggle' || name === 'blended';

/** The map with what the machine alone heard weighed by how often this studio's coaches, listening blind, heard it too. */
export function withTrust(map: VoiceMap, trust: Trust): VoiceMap {
  const own = new Set(map.passaggi.filter(isMachines).map((p) => p.midi));
  const passaggi = map.passaggi.map((p) => (own.has(p.midi) ? { ...p, confidence: p.confidence * weightOf(trust, p.name) } : p));
  const findings = map.findings.map((f) => {
    if (!isCrossing(f.name) || !own.has(f.midi)) return f;
    return { ...f, confidence: f.confidence * weightOf(trust, f.name), because: becauseOf(trust, f.name, f.because) };
  });
  return { ...map, passaggi, findings };
}
