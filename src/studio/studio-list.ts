import { withPinnedChanges } from '../core/map/pins';
import type { VoiceSummary } from '../core/map/types';
import { inShort } from '../core/practice/log';
import { listSingers } from '../data/singers';
import { dayOf } from './day';
import type { Context } from './context';

const NOTHING_KNOWN: VoiceSummary = { extreme: null, passaggi: [], findings: [] };

/** Everyone in the studio with what their kept maps say in short, and the present time, milliseconds. */
export async function viewStudio({ tx, now }: Context) {
  const today = dayOf(now);
  const singers = (await listSingers(tx)).map(({ summary, pins, assigned, practisedOn, lastPractised, ...s }) => {
    const known = summary ?? NOTHING_KNOWN;
    return {
      ...s,
      /** Sung, and not pooled yet: that is a matter of moments. */
      pending: summary === null && s.lastHeard !== null,
      summary: { ...known, passaggi: withPinnedChanges(known.passaggi, pins, {}) },
      hasWeek: assigned !== null,
      practised: inShort(assigned, practisedOn, lastPractised, today),
    };
  });
  return { singers, now: now.getTime() };
}
