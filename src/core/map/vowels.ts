import { TakeEvidence, Passaggio, VowelCrossing } from './types';
import { isSlide, passesBy, placeOf } from './zone';

/** Passes on a vowel under which nothing is said of it. */
const LEAST_PASSES = 2;

/**
 * How a passaggio is crossed on each vowel: passes that went by, and those in which it was heard; best first. From slides
 * alone: there the voice passes every note alike. One vowel alone is compared with nothing, and left out.
 */
export function vowelsAt(takes: readonly TakeEvidence[], at: Pick<Passaggio, 'midi' | 'upMidi' | 'downMidi' | 'votes'>): VowelCrossing[] {
  const counts = new Map<string, VowelCrossing>();
  for (const { takeId, vowel, findings } of takes) {
    if (!vowel || !isSlide(findings)) continue;
    findings.legs.forEach((leg, l) => {
      if (!passesBy(leg, placeOf(at, leg.direction))) return;
      const own = counts.get(vowel) ?? { vowel, passes: 0, heard: 0 };
      const heard = at.votes.some((v) => v.takeId === takeId && v.leg === l && v.kind !== 'blend');
      counts.set(vowel, { ...own, passes: own.passes + 1, heard: own.heard + Number(heard) });
    });
  }
  const told = [...counts.values()].filter((c) => c.passes >= LEAST_PASSES);
  return told.length > 1 ? told.sort((a, b) => a.heard / a.passes - b.heard / b.passes || a.vowel.localeCompare(b.vowel)) : [];
}
