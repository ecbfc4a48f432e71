/** How far two listeners agree: share of things named alike, and what of it chance does not explain. */
export interface Agreement {
  n: number;
  share: number;
  /** Cohen's kappa, -1..1; null where chance alone would make them agree on everything. */
  kappa: number | null;
}

/**
 * Agreement of two listeners who named the same things, each thing once (Cohen 1960, "A coefficient of agreement for nominal scales").
 * @returns null where nothing was named by both. @throws RangeError where the lists are not of one length.
 */
export function agreement<T>(one: readonly T[], other: readonly T[]): Agreement | null {
  if (one.length !== other.length) throw new RangeError('Two listeners are compared on the same things: the lists differ in length.');
  const n = one.length;
  if (n === 0) return null;
  const alike = one.filter((name, i) => name === other[i]).length;
  const count = (all: readonly T[], name: T) => all.filter((x) => x === name).length;
  const byChance = [...new Set([...one, ...other])].reduce((sum, name) => sum + (count(one, name) / n) * (count(other, name) / n), 0);
  const share = alike / n;
  return { n, share, kappa: byChance === 1 ? null : (share - byChance) / (1 - byChance) };
}
