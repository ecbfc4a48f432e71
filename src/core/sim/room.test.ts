import { convolve, decayingNoise, directToReverberantDb, drawRoom, Room, roomResponse } from './room';

const RATE = 16000;
const ROOM: Room = { size: [5, 4, 2.6], reverbS: 0.5, mouth: [2, 1.8, 1.5], microphone: [2.4, 1.9, 1.45] };

/** Reverberation time from the backward-integrated energy between -5 and -25 dB (Schroeder 1965; ISO 3382-2, from memory). */
function reverbS(response: Float64Array): number {
  const left = new Float64Array(response.length);
  let sum = 0;
  for (let i = response.length - 1; i >= 0; i--) left[i] = sum += response[i] ** 2;
  // From just after the direct sound, which stands over the decay.
  const tail = left.subarray(Math.round(0.01 * RATE));
  const inTail = (db: number) => tail.findIndex((e) => 10 * Math.log10(e / tail[0]) < db) / RATE;
  return 3 * (inTail(-25) - inTail(-5));
}

test('a room rings about as long as asked, a longer one longer, and the direct sound comes first', () => {
  const times = [0.3, 0.5, 0.9].map((asked) => reverbS(roomResponse({ ...ROOM, reverbS: asked }, RATE)));
  expect(times[0]).toBeLessThan(times[1]);
  // Image sources with even walls ring longer than Eyring's formula says: sound between the far walls meets few of them.
  [0.3, 0.5, 0.9].forEach((asked, i) => expect(times[i] / asked).toBeLessThan(2.2));
  const response = roomResponse(ROOM, RATE);
  expect(response.reduce((best, x, i) => (Math.abs(x) > Math.abs(response[best]) ? i : best), 0)).toBe(0);
});

test('decaying noise decays as asked, so far under the direct sound', () => {
  for (const [asked, directDb] of [
    [0.3, 6],
    [0.8, 12],
  ] as const) {
    const response = decayingNoise(asked, directDb, RATE);
    expect(Math.abs(reverbS(response) / asked - 1)).toBeLessThan(0.1);
    expect(Math.abs(directToReverberantDb(response, RATE) - directDb)).toBeLessThan(1);
  }
});

test('further from the mouth the room is louder against the direct sound, by about 6 dB a doubling', () => {
  const at = (distance: number) => directToReverberantDb(roomResponse({ ...ROOM, microphone: [2 + distance, 1.8, 1.5] }, RATE), RATE);
  const gain = at(0.3) - at(0.6);
  expect(gain).toBeGreaterThan(4);
  expect(gain).toBeLessThan(8);
});

test('rooms drawn for a drier sound are drier', () => {
  const mean = (directDb: number) =>
    [1, 2, 3, 4, 5, 6].reduce((s, seed) => s + directToReverberantDb(roomResponse(drawRoom(seed, directDb), RATE), RATE) / 6, 0);
  // Distances are held between 10 cm and 1.5 m, which takes some of it back.
  expect(mean(14) - mean(4)).toBeGreaterThan(2);
});

test('convolving is summing delayed copies', () => {
  const samples = Float32Array.from({ length: 40000 }, (_, i) => Math.sin(i / 7));
  const response = new Float64Array(20001);
  response[0] = 1;
  response[100] = 0.5;
  response[20000] = -0.25;
  const out = convolve(samples, response);
  for (const i of [0, 50, 150, 16384, 19999, 20000, 39999])
    expect(out[i]).toBeCloseTo(samples[i] + (i >= 100 ? 0.5 * samples[i - 100] : 0) - (i >= 20000 ? 0.25 * samples[i - 20000] : 0), 4);
});
