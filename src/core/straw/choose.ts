import { said, Said, texts } from '../words/said';
import { backPressure, CM_H2O_PA, isSameStraw, Straw } from './flow';

/** Straws that are easily had (common practice, no source): the middle of what is sold under each name. */
export const KINDS = texts([
  { id: 'wide', name: 'Wide straw', diameterMm: 9, lengthMm: 200 },
  { id: 'drinking', name: 'Drinking straw', diameterMm: 5.5, lengthMm: 200 },
  { id: 'cocktail', name: 'Cocktail straw', diameterMm: 3.5, lengthMm: 130 },
  { id: 'stirrer', name: 'Stirrer', diameterMm: 2.5, lengthMm: 130 },
]) satisfies readonly (Straw & { id: string; name: string })[];

/** Straws held together, and how deep their ends stand in water. */
export interface StrawSet {
  straws: Straw[];
  depthCm: number;
}

/** Singing flow, litres a second (common practice, no source): the usual, and the range a curve is drawn for. */
export const USUAL_FLOW = 0.2;
export const FLOWS = { low: 0.05, high: 0.35 };

/**
 * Where a set usually feels easy at the usual flow, pascals (common practice, no source): under it there is little to feel, over
 * it the straw fights back. A starting expectation; the singer's own feeling overrides it.
 */
export const COMFORT = { low: 0.5 * CM_H2O_PA, high: 6 * CM_H2O_PA };

export const MOST_SIDE_BY_SIDE = 3;

/** A straw in words: by its name where it is one that is easily had. */
export function strawName(straw: Straw): Said {
  const kind = KINDS.find((k) => isSameStraw(k, straw));
  const of = { mm: straw.diameterMm, cm: straw.lengthMm / 10 };
  return kind ? said('{kind}, {mm} mm × {cm} cm', { kind: kind.name, ...of }) : said('{mm} mm × {cm} cm', of);
}

/** A set of like straws in words. */
export function setName({ straws, depthCm }: StrawSet): Said {
  const of = { n: straws.length, straw: strawName(straws[0]), depth: depthCm };
  if (straws.length === 1) return depthCm > 0 ? said('{straw}: {depth} cm under water', of) : of.straw;
  return depthCm > 0 ? said('{n} side by side: {straw}: {depth} cm under water', of) : said('{n} side by side: {straw}', of);
}

export const FEELS = texts(['little to feel', 'comfortable', 'fights back']);
export type Feel = (typeof FEELS)[number];

export const pressureOf = ({ straws, depthCm }: StrawSet, flow = USUAL_FLOW): number => backPressure(straws, flow, depthCm);

export function feelOf(set: StrawSet, flow = USUAL_FLOW): Feel {
  const pressure = pressureOf(set, flow);
  return pressure < COMFORT.low ? 'little to feel' : pressure > COMFORT.high ? 'fights back' : 'comfortable';
}

/** Whether two sets are the same straws as deep in water. */
export const isSameSet = (a: StrawSet, b: StrawSet): boolean =>
  a.depthCm === b.depthCm && a.straws.length === b.straws.length && a.straws.every((s, i) => isSameStraw(s, b.straws[i]));

/** What to do when a set fights back: one more of the narrowest beside it, or, with the hand full, no water, or a wider one. */
export function easier({ straws, depthCm }: StrawSet): { set: StrawSet; how: Said } | null {
  const narrowest = straws.reduce((a, b) => (b.diameterMm < a.diameterMm ? b : a));
  if (straws.length < MOST_SIDE_BY_SIDE)
    return { set: { straws: [...straws, narrowest], depthCm }, how: said('Hold one more straw beside it.') };
  if (depthCm > 0) return { set: { straws, depthCm: 0 }, how: said('Take it out of the water.') };
  const wider = [...KINDS].sort((a, b) => a.diameterMm - b.diameterMm).find((k) => k.diameterMm > narrowest.diameterMm);
  return wider ? { set: { straws: [wider], depthCm: 0 }, how: said('Change to a wider one: {straw}.', { straw: wider.name }) } : null;
}

/**
 * The sets that can be made of a singer's straws (each kind alone or up to three side by side, dry), from least to most back
 * pressure at the usual flow: the steps of a progression. Sets that fight back come last and are marked by `feelOf`.
 */
export function progression(inventory: readonly (Straw & { count: number })[]): StrawSet[] {
  return inventory
    .flatMap((straw) =>
      Array.from({ length: Math.min(MOST_SIDE_BY_SIDE, straw.count) }, (_, i): StrawSet => {
        const { diameterMm, lengthMm } = straw;
        return { straws: Array.from({ length: i + 1 }, () => ({ diameterMm, lengthMm })), depthCm: 0 };
      }),
    )
    .sort((a, b) => pressureOf(a) - pressureOf(b));
}

/** Which set to sing through today: the `step`-th comfortable one of the progression (0 first), the nearest there is otherwise. */
export function strawsForToday(inventory: readonly (Straw & { count: number })[], step: number): StrawSet | null {
  const all = progression(inventory);
  const comfortable = all.filter((s) => feelOf(s) === 'comfortable');
  if (comfortable.length > 0) return comfortable[Math.min(Math.max(0, step), comfortable.length - 1)];
  const off = (s: StrawSet) => Math.abs(Math.log(pressureOf(s) / Math.sqrt(COMFORT.low * COMFORT.high)));
  return all.length > 0 ? all.reduce((a, b) => (off(b) < off(a) ? b : a)) : null;
}
