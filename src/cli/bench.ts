import { YIN } from 'pitchfinder';
import { writeFileSync } from 'node:fs';
import { PitchDetector } from 'pitchy';
import { sing } from '../core/sim/sing';
import { additiveTone } from '../core/sim/tones';
import { typicalProfile } from '../core/sim/typical';
import { analyseTake } from '../core/take/analyse';
import { PitchScore, scorePitch } from '../core/voice/measures';
import { trackVoice } from '../core/voice/track';
import { HOP_S, Pcm } from '../core/voice/types';
import { singersReport } from './bench-singers';

interface Signal {
  group: string;
  pcm: Pcm;
  /** Hertz every HOP_S seconds; 0 unvoiced. */
  truth: Float32Array;
}

/** A tracker with one setting of its own; of a library's settings the best over all signals is shown. */
interface Rival {
  name: string;
  track(pcm: Pcm): Float32Array;
}

const SINGERS = 200;

const framesOf = (pcm: Pcm) => Math.floor(pcm.samples.length / pcm.sampleRate / HOP_S);

function framed(pcm: Pcm, length: number, pitchOf: (frame: Float32Array) => number): Float32Array {
  const out = new Float32Array(framesOf(pcm));
  const frame = new Float32Array(length);
  for (let i = 0; i < out.length; i++) {
    const from = Math.round(i * HOP_S * pcm.sampleRate) - length / 2;
    for (let k = 0; k < length; k++) frame[k] = pcm.samples[from + k] ?? 0;
    out[i] = pitchOf(frame);
  }
  return out;
}

const RIVALS: Rival[][] = [
  [0.7, 0.8, 0.9].map((least) => ({
    name: `pitchy, clarity ${least}`,
    track(pcm: Pcm) {
      const detector = PitchDetector.forFloat32Array(2048);
      return framed(pcm, 2048, (frame) => {
        const [hz, clarity] = detector.findPitch(frame, pcm.sampleRate);
        return clarity > least ? hz : 0;
      });
    },
  })),
  [0.05, 0.1, 0.15].map((threshold) => ({
    name: `pitchfinder YIN, ${threshold}`,
    track(pcm: Pcm) {
      const yin = YIN({ sampleRate: pcm.sampleRate, threshold, probabilityThreshold: 0.8 });
      return framed(pcm, 2048, (frame) => yin(frame) ?? 0);
    },
  })),
];

function tone(group: string, seconds: number, hz: (t: number) => number, more: Partial<Parameters<typeof additiveTone>[0]> = {}): Signal {
  const restS = 0.3;
  const pcm = additiveTone({ seconds, hz, restS, snrDb: 60, ...more });
  const truth = Float32Array.from({ length: framesOf(pcm) }, (_, i) => {
    const t = i * HOP_S - restS;
    return t >= 0 && t < seconds ? hz(t) : 0;
  });
  return { group, pcm, truth };
}

function sung(
  group: string,
  type: Parameters<typeof typicalProfile>[0],
  seed: number,
  options: { snrDb?: number; reverbS?: number; breathiness?: number } = {},
): Signal {
  const profile = typicalProfile(type, seed % 2 ? 'flip' : 'blend');
  const { pcm, truth } = sing(
    { ...profile, breathiness: options.breathiness ?? 0.1 },
    { kind: 'siren', legS: 2.5 },
    { seed, snrDb: options.snrDb ?? 60, reverbS: options.reverbS },
  );
  return { group, pcm, truth: truth.f0 };
}

const vowel = (k: number, f: number) => (1 / k) * (0.1 + 1 / (1 + ((k * f - 700) / 200) ** 2));
const vibrato = (hz: number) => (t: number) => hz * 2 ** ((0.4 / 12) * Math.sin(2 * Math.PI * 5.5 * t));

const SIGNALS: Signal[] = [
  ...[110, 196, 330, 520].map((hz) => tone('clean', 1.5, vibrato(hz), { amplitude: vowel })),
  sung('clean', 'tenor', 1),
  sung('clean', 'mezzo', 2),
  ...[130, 294, 600].map((hz, i) => tone('noise 20 dB', 1.5, vibrato(hz), { amplitude: vowel, snrDb: 20, seed: i })),
  sung('noise 20 dB', 'baritone', 3, { snrDb: 20 }),
  sung('noise 30 dB', 'soprano', 4, { snrDb: 30 }),
  sung('noise 30 dB', 'bass', 5, { snrDb: 30 }),
  sung('reverb', 'tenor', 6, { reverbS: 0.5 }),
  sung('reverb', 'mezzo', 7, { reverbS: 0.5 }),
  sung('breathy', 'mezzo', 8, { breathiness: 0.9 }),
  sung('breathy', 'tenor', 9, { breathiness: 0.9 }),
  ...[1100, 1500, 2000].map((hz) => tone('very high', 1, vibrato(hz))),
  ...[58, 66, 80].map((hz) => tone('very low', 1.5, vibrato(hz), { amplitude: vowel })),
  tone('fast glide', 1.5, (t) => 110 * 2 ** (2 * t), { amplitude: vowel }),
  tone('fast glide', 1.5, (t) => 880 * 2 ** (-2 * t), { amplitude: vowel }),
];

/** Pool frames, not signals, as the definitions do. */
function scored(track: (pcm: Pcm) => Float32Array, signals: Signal[]): PitchScore {
  const truth: number[] = [];
  const heard: number[] = [];
  for (const s of signals) {
    const got = track(s.pcm);
    for (let i = 0; i < s.truth.length; i++) {
      truth.push(s.truth[i]);
      heard.push(got[i] ?? 0);
    }
  }
  return scorePitch(truth, heard);
}

/** Median seconds of `runs` calls. */
function timed(work: () => unknown, runs: number): number {
  const times = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return (performance.now() - from) / 1000;
  });
  return times.sort((a, b) => a - b)[runs >> 1];
}

const ours: Rival = { name: 'Wendel', track: (pcm) => trackVoice(pcm).f0 };
const best = (settings: Rival[]) =>
  settings.map((rival) => ({ rival, score: scored(rival.track, SIGNALS).overall })).sort((a, b) => b.score - a.score)[0].rival;
const all = [ours, ...RIVALS.map(best)];
const lines: string[] = [];
function say(text: string) {
  console.log(text);
  lines.push(text);
}
const percent = (x: number) => (100 * x).toFixed(1).padStart(6);

say('Accuracy, % of frames (pitch within 50 / 10 cents, octave errors, voicing recall / false alarm, overall)\n');
for (const group of [...new Set(SIGNALS.map((s) => s.group)), 'all']) {
  const signals = group === 'all' ? SIGNALS : SIGNALS.filter((s) => s.group === group);
  say(group);
  for (const { name, track } of all) {
    const s = scored(track, signals);
    say(
      `  ${name.padEnd(24)}${percent(s.pitch50)}${percent(s.pitch10)}${percent(s.octave)}${percent(s.recall)}${percent(s.falseAlarm)}${percent(s.overall)}`,
    );
  }
}

const take = sung('speed', 'tenor', 11).pcm;
const ten: Pcm = {
  sampleRate: take.sampleRate,
  samples: Float32Array.from({ length: 10 * take.sampleRate }, (_, i) => take.samples[i % take.samples.length]),
};
for (let i = 0; i < 8; i++) analyseTake(ten, 'siren');
const whole = timed(() => analyseTake(ten, 'siren'), 9);
say(`\nSpeed on one core, a 10 s take at ${take.sampleRate} Hz, pitch every 5 ms`);
say(`  ${'whole analysis'.padEnd(24)}${(1000 * whole).toFixed(0).padStart(6)} ms   ${(10 / whole).toFixed(0)} s of sound a second`);
const own = timed(() => ours.track(ten), 9);
for (const { name, track } of all) {
  const s = name === ours.name ? own : timed(() => track(ten), 1);
  say(
    `  ${`pitch, ${name}`.padEnd(34)}${(1000 * s).toFixed(0).padStart(6)} ms   ${(10 / s).toFixed(1)} s a second   ${(s / own).toFixed(1)} times ours`,
  );
}

say('');
for (const line of singersReport(SINGERS)) say(line);

writeFileSync(
  'docs/accuracy.md',
  `# Accuracy and speed\n\nWritten by \`npm run bench\`. Signals are additive tones and simulated singers; of each library the setting that served it best\nover all of them. Speed depends on the machine: compare within this run only.\n\n${lines.map((l) => `    ${l}`.trimEnd()).join('\n')}\n`,
);
