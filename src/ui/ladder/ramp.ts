/** Aubergine, mulberry, apricot: lightness rises steadily from chest to head, so the ramp also reads in grey. */
const STOPS: [number, number, number][] = [
  [62, 28, 66],
  [150, 56, 102],
  [240, 164, 112],
];

/** Colour of a place on the register ramp: 0 chest, 0.5 mix, 1 head. */
export function rampColour(head: number): string {
  const at = Math.min(1, Math.max(0, head)) * (STOPS.length - 1);
  const i = Math.min(STOPS.length - 2, Math.floor(at));
  const f = at - i;
  return `rgb(${STOPS[i].map((c, k) => Math.round(c + f * (STOPS[i + 1][k] - c))).join(' ')})`;
}
