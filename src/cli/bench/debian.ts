import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readWav, writeWav } from '../../core/format/wav';
import { midiToHz } from '../../core/music/pitch';
import { degreeToSemitones } from '../../core/music/scale';
import { HOP_S, Pcm } from '../../core/voice/types';
import { Rival } from './rivals';
import { framesOf, Signal } from './signals';

const CSOUND = '/usr/bin/csound';
const AUBIO = '/usr/bin/aubiopitch';

export const missingPrograms = () => [CSOUND, AUBIO].filter((p) => !existsSync(p));

export function inFolder<T>(work: (folder: string) => T): T {
  const folder = mkdtempSync(join(tmpdir(), 'wendel-bench-'));
  try {
    return work(folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** What has not made its sound by then hangs. */
const LONGEST_MS = 120_000;

/** Run a program to its end and give what it printed. @throws Error with its last words where it fails or hangs. */
export function ranProgram(program: string, args: readonly string[]): string {
  const { status, signal, stdout, stderr } = spawnSync(program, args, {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    maxBuffer: 1 << 28,
    timeout: LONGEST_MS,
    killSignal: 'SIGKILL',
  });
  if (status !== 0) throw new Error(`${program} ended with ${signal ?? status}: ${stderr.slice(-400)}`);
  return stdout;
}

/** One fof voice of Csound (formant wave functions: Rodet 1984): `score` lines are "start length from-hz to-hz vibrato-share". */
function fofVoice(score: [number, number, number, number, number][], formants: [number, number, number][]): Pcm {
  return inFolder((folder) => {
    const file = join(folder, 'voice.csd');
    const wav = join(folder, 'voice.wav');
    const fofs = formants.map(
      ([hz, width, gain]) => `a0 fof ${gain}, kf, ${hz}, 0, ${width}, 0.003, 0.02, 0.007, 200, 1, 2, p3\naout = aout + a0`,
    );
    writeFileSync(
      file,
      `<CsoundSynthesizer>
<CsOptions>
-o ${wav} -W -d -m0
</CsOptions>
<CsInstruments>
sr=44100
ksmps=10
nchnls=1
0dbfs=1
gi1 ftgen 1,0,8192,10,1
gi2 ftgen 2,0,1024,19,0.5,0.5,270,0.5
instr 1
kenv linseg 0,0.03,1,p3-0.08,1,0.05,0
kline expon p4, p3, p5
kvib oscili p6, 5.5, 1
kf = kline*(1+kvib)
aout init 0
aout = 0
${fofs.join('\n')}
out aout*kenv
endin
</CsInstruments>
<CsScore>
${score.map((line) => `i1 ${line.join(' ')}`).join('\n')}
e
</CsScore>
</CsoundSynthesizer>`,
    );
    ranProgram(CSOUND, [file]);
    return readWav(readFileSync(wav));
  });
}

const MAN: [number, number, number][] = [
  [650, 80, 0.2],
  [1080, 90, 0.1],
  [2650, 120, 0.04],
  [2900, 130, 0.03],
];
const WOMAN: [number, number, number][] = [
  [800, 80, 0.2],
  [1150, 90, 0.1],
  [2900, 120, 0.03],
  [3900, 130, 0.02],
];

/** Slides and held notes of Csound's voices, with the pitch their score gives. */
export function csoundSignals(): Signal[] {
  if (!existsSync(CSOUND)) return [];
  const lines: [number, number, number, number, [number, number, number][]][] = [
    [3, 110, 440, 0, MAN],
    [3, 880, 220, 0, WOMAN],
    [2, 147, 147, 0.02, MAN],
    [2, 523, 523, 0.02, WOMAN],
  ];
  return lines.map(([seconds, from, to, vibrato, formants]) => {
    const start = 0.4;
    const pcm = fofVoice(
      [
        [start, seconds, from, to, vibrato],
        [start + seconds + 0.4, 0.05, 1, 1, 0],
      ],
      formants,
    );
    const truth = Float32Array.from({ length: framesOf(pcm) }, (_, i) => {
      const t = i * HOP_S - start;
      if (t < 0 || t >= seconds) return 0;
      return from * (to / from) ** (t / seconds) * (1 + vibrato * Math.sin(2 * Math.PI * 5.5 * t));
    });
    return { group: 'csound fof', pcm, truth };
  });
}

/** Five-note scales of Csound's voices: the sound and the notes of their score. */
export function csoundScales(): { pcm: Pcm; notes: { startS: number; midi: number }[] }[] {
  if (!existsSync(CSOUND)) return [];
  return (
    [
      [48, MAN],
      [60, WOMAN],
    ] as const
  ).map(([tonic, formants]) => {
    const notes: { startS: number; midi: number }[] = [];
    let t = 0.3;
    for (const key of [0, 2, 4, 9, 14]) {
      for (const degree of [1, 2, 3, 4, 5, 4, 3, 2, 1]) {
        notes.push({ startS: t, midi: tonic + key + degreeToSemitones(degree) });
        t += 0.4;
      }
      t += 0.5;
    }
    const pcm = fofVoice(
      notes.map(({ startS, midi }) => [startS, 0.4, midiToHz(midi), midiToHz(midi), 0.006]),
      formants,
    );
    return { pcm, notes };
  });
}

const HOP = 220;

/** Debian's aubio by method, each at the settings and the time shift that serve it best (it stamps its windows' ends). */
export function aubioRivals(): Rival[][] {
  if (!existsSync(AUBIO)) return [];
  return ['yinfft', 'yinfast', 'mcomb'].map((method) =>
    [0, 1024].flatMap((shift) =>
      [-70, -50].map((silence) => ({
        name: `aubio ${method}`,
        track: (pcm: Pcm) =>
          inFolder((folder) => {
            const wav = join(folder, 'take.wav');
            writeFileSync(wav, writeWav(pcm, 16));
            const args = ['-i', wav, '-r', String(pcm.sampleRate), '-p', method, '-B', '2048', '-H', String(HOP), '-s', String(silence)];
            const lines = ranProgram(AUBIO, args).trim().split('\n');
            const out = new Float32Array(framesOf(pcm));
            for (const line of lines) {
              const [time, hz] = line.trim().split(/\s+/).map(Number);
              const at = Math.round((time - shift / pcm.sampleRate) / HOP_S);
              if (at >= 0 && at < out.length && hz > 40 && hz < 2200) out[at] = hz;
            }
            return out;
          }),
      })),
    ),
  );
}
