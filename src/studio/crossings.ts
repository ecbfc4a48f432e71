import type { Id } from '../core/format/id';
import { Crossing, crossingIn } from '../core/map/crossings';
import { tracesOf } from '../data/takes';
import type { Context } from './context';
import { mapOf } from './pooling';
import { mustFindSinger } from './singers';

/** Passes shown at most, the newest: more than that are a cloud. */
const MOST_CROSSINGS = 200;

/** Every pass in which the change nearest to a pitch was heard, oldest first; none where the map has no change. */
export async function crossingsAt({ tx }: Context, singerId: Id<'singer'>, midi: number): Promise<Crossing[]> {
  await mustFindSinger(tx, singerId);
  const { passaggi } = await mapOf(tx, singerId);
  const [change] = [...passaggi].sort((a, b) => Math.abs(a.midi - midi) - Math.abs(b.midi - midi));
  if (!change) return [];
  // Each of these takes holds a pass at least: older ones needn't be read.
  const takes = await tracesOf(tx, [...new Set(change.votes.map((v) => v.takeId as Id<'take'>))], MOST_CROSSINGS);
  return takes
    .reverse()
    .flatMap(({ takeId, trace }) =>
      change.votes
        .filter((v) => v.takeId === takeId)
        .sort((a, b) => a.timeS - b.timeS)
        .map((vote) => crossingIn(trace!, vote)),
    )
    .slice(-MOST_CROSSINGS);
}
