import { AIR, backPressure, CM_H2O_PA, reynolds, Straw, strawPressure } from './flow';

const drinking: Straw = { diameterMm: 6, lengthMm: 200 };

describe('against worked numbers', () => {
  test('smooth flow through a narrow, slow tube is Hagen-Poiseuille (textbook)', () => {
    // 0.01 l/s through 4 mm x 1 m: 128 x 1.9e-5 x 1 x 1e-5 / (pi x 0.004^4) = 30.24 Pa; speed 0.7958 m/s, ends 1.2 x 0.361 = 0.433 Pa.
    expect(strawPressure({ diameterMm: 4, lengthMm: 1000 }, 0.01)).toBeCloseTo(30.24 + 0.433, 1);
  });
  test('Reynolds number: 4 rho Q / (pi mu d)', () => {
    expect(reynolds(drinking, 0.2)).toBeCloseTo((4 * AIR.density * 2e-4) / (Math.PI * AIR.viscosity * 0.006), 6);
  });
  test('turbulent friction is Blasius: f = 0.3164 Re^-1/4', () => {
    const narrow = { diameterMm: 3, lengthMm: 130 };
    const speed = 2.5e-4 / ((Math.PI * 0.003 ** 2) / 4);
    const re = reynolds(narrow, 0.25);
    expect(re).toBeGreaterThan(4000);
    const dynamic = (AIR.density * speed ** 2) / 2;
    expect(strawPressure(narrow, 0.25)).toBeCloseTo(dynamic * ((0.3164 / re ** 0.25) * (130 / 3) + 1.2), 6);
  });
  test('a centimetre of water is 98.07 Pa', () => {
    expect(CM_H2O_PA).toBeCloseTo(98.07, 2);
    expect(backPressure([drinking], 0.1, 3) - backPressure([drinking], 0.1)).toBeCloseTo(3 * 98.0665, 6);
  });
});

test('straws side by side are resistances in parallel: two alike carry half the flow each', () => {
  for (const flow of [0.1, 0.2, 0.3])
    expect(backPressure([drinking, drinking], flow) / strawPressure(drinking, flow / 2)).toBeCloseTo(1, 6);
  // In smooth flow without ends two halves would be exactly half as hard; ends and turbulence make it less.
  expect(backPressure([drinking, drinking], 0.2)).toBeLessThan(0.5 * backPressure([drinking], 0.2));
});

test('unlike straws side by side: one pressure, and the flow divides so that it adds up', () => {
  const wide = { diameterMm: 7, lengthMm: 150 };
  const both = backPressure([drinking, wide], 0.2);
  // What each lets through at that pressure, by stepping along its curve.
  const through = (straw: Straw) => {
    let flow = 0;
    while (strawPressure(straw, flow) < both) flow += 1e-6;
    return flow;
  };
  expect(through(drinking) + through(wide)).toBeCloseTo(0.2, 5);
  // Hardly unlike is hardly other than alike.
  const nearly = backPressure([drinking, { ...drinking, lengthMm: 200.000001 }], 0.2);
  expect(nearly / backPressure([drinking, drinking], 0.2)).toBeCloseTo(1, 6);
});

test('more flow, a narrower or longer straw: always more pressure', () => {
  let last = 0;
  for (let flow = 0.01; flow < 0.6; flow += 0.005) {
    const now = strawPressure(drinking, flow);
    expect(now).toBeGreaterThan(last);
    last = now;
  }
  expect(strawPressure({ ...drinking, diameterMm: 5 }, 0.2)).toBeGreaterThan(strawPressure(drinking, 0.2));
  expect(strawPressure({ ...drinking, lengthMm: 250 }, 0.2)).toBeGreaterThan(strawPressure(drinking, 0.2));
});

test('straws that make no sense are refused', () => {
  expect(() => strawPressure({ diameterMm: 0, lengthMm: 100 }, 0.1)).toThrow(/diameter/);
  expect(() => backPressure([], 0.1)).toThrow(/at least one/);
});
