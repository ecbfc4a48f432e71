/** A tube that is sung through: inner diameter and length, millimetres. */
export interface Straw {
  diameterMm: number;
  lengthMm: number;
}

/** Whether two straws are alike, whatever else is known of them. */
export const isSameStraw = (a: Straw, b: Straw): boolean => a.diameterMm === b.diameterMm && a.lengthMm === b.lengthMm;

/** Air at 37 degrees C (fluid mechanics textbook values, from memory): viscosity, Pa s, and density, kg/m3. */
export const AIR = { viscosity: 1.9e-5, density: 1.14 };
/** One centimetre of water, pascals: 1000 kg/m3 x 9.80665 m/s2 x 0.01 m (conventional). */
export const CM_H2O_PA = 98.0665;
/** What entry and exit cost, in dynamic pressures: between 1 and 1.5 for a plain tube (textbook, from memory). */
const ENDS = 1.2;
/** Smooth flow ends and turbulent flow is complete at these Reynolds numbers (textbook). */
const SMOOTH_TO = 2300;
const ROUGH_FROM = 4000;

const area = (diameterM: number) => (Math.PI * diameterM ** 2) / 4;

/** Reynolds number of `flow` (litres a second) through a straw. */
export function reynolds({ diameterMm }: Straw, flow: number): number {
  const d = diameterMm / 1000;
  return (AIR.density * (flow / 1000) * d) / (area(d) * AIR.viscosity);
}

/**
 * Pressure that drives `flow` (litres a second, 0 and up) through one straw, pascals: friction along its wall
 * (Hagen-Poiseuille, 128 mu L Q / (pi d^4), while the flow is smooth; Blasius 1913 where it is turbulent) and the loss at its ends.
 */
export function strawPressure(straw: Straw, flow: number): number {
  if (!(straw.diameterMm > 0) || !(straw.lengthMm > 0)) throw new RangeError('A straw needs a diameter and a length above 0 mm.');
  if (flow <= 0) return 0;
  const d = straw.diameterMm / 1000;
  const length = straw.lengthMm / 1000;
  const speed = flow / 1000 / area(d);
  const dynamic = (AIR.density * speed ** 2) / 2;
  const re = reynolds(straw, flow);
  const smooth = (128 * AIR.viscosity * length * (flow / 1000)) / (Math.PI * d ** 4);
  const rough = (0.3164 / re ** 0.25) * (length / d) * dynamic;
  const share = Math.min(1, Math.max(0, (re - SMOOTH_TO) / (ROUGH_FROM - SMOOTH_TO)));
  return (1 - share) * smooth + share * rough + ENDS * dynamic;
}

/** Flow that a pressure drives through one straw, litres a second. */
function strawFlow(straw: Straw, pressure: number): number {
  let low = 0;
  let high = 1;
  while (strawPressure(straw, high) < pressure) high *= 2;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (strawPressure(straw, middle) < pressure) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Back pressure in the mouth, pascals, when `flow` (litres a second) goes out through straws side by side (resistances in
 * parallel: one pressure, the flow divided), their ends `depthCm` under water.
 */
export function backPressure(straws: readonly Straw[], flow: number, depthCm = 0): number {
  if (straws.length === 0) throw new RangeError('Choose at least one straw.');
  const water = Math.max(0, depthCm) * CM_H2O_PA;
  if (flow <= 0) return water;
  const [first] = straws;
  // Like straws carry like shares, and need no search.
  if (straws.every((s) => isSameStraw(s, first))) return strawPressure(first, flow / straws.length) + water;
  // Alone each would need at least as much.
  let high = Math.min(...straws.map((s) => strawPressure(s, flow)));
  let low = 0;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (straws.reduce((sum, s) => sum + strawFlow(s, middle), 0) < flow) low = middle;
    else high = middle;
  }
  return (low + high) / 2 + water;
}
