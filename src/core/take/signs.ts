import { median, robustSpread } from '../signal/stats';

/** A sign counts no more than this, in units of what the take does where nothing changes. */
const MOST_UNITS = 8;
/** No one sign speaks against a change by more. */
const MOST_AGAINST = 3;

/** Signs of a change at one moment by name; NaN where one can't be read. */
export type Signs<Name extends string> = Record<Name, number>;

/** How a sign is weighed: nats a unit, and the least its unit is ever taken for. */
export type Weighing<Name extends string> = Record<Name, { nats: number; least: number }>;

/**
 * Evidence for a change at each moment, in nats: every sign counts in units of its own scatter over the take, about the middle of
 * its group (a leg, the steps going one way), so that a room's or a voice's unrest is no evidence.
 */
export function evidenceOf<Name extends string>(groups: Signs<Name>[][], weighing: Weighing<Name>, needed: number): number[][] {
  const names = Object.keys(weighing) as Name[];
  const known = (values: number[]) => values.filter((v) => !Number.isNaN(v));
  const middles = groups.map(
    (group) => Object.fromEntries(names.map((name) => [name, median(known(group.map((s) => s[name])))])) as Signs<Name>,
  );
  const units = Object.fromEntries(
    names.map((name) => {
      const off = groups.flatMap((group, g) => known(group.map((s) => s[name] - middles[g][name])));
      return [name, Math.max(weighing[name].least, off.length ? robustSpread(off) : 0)];
    }),
  ) as Signs<Name>;
  return groups.map((group, g) =>
    group.map((signs) => {
      let sum = -needed;
      for (const name of names) {
        const count = (Math.sign(weighing[name].nats) * (signs[name] - middles[g][name])) / units[name];
        if (!Number.isNaN(count)) sum += Math.abs(weighing[name].nats) * Math.max(-MOST_AGAINST, Math.min(MOST_UNITS, count));
      }
      return sum;
    }),
  );
}

/** Nats of evidence as a confidence, 0..1. */
export const confidenceOf = (evidence: number): number => Math.min(0.98, 1 / (1 + Math.exp(-evidence)));
