import { writeAccuracy } from './accuracy-page';
import { analyseTake } from '../../core/take/analyse';
import { SungNote } from '../../core/take/types';
import { createLiveTracker } from '../../core/voice/live';
import { PitchScore, scorePitch } from '../../core/voice/measures';
import { trackVoice } from '../../core/voice/track';
import { Pcm } from '../../core/voice/types';
import { aubioRivals, csoundScales, csoundSignals, missingPrograms } from './debian';
import { REGISTRY_RIVALS, Rival } from './rivals';
import { OWN_SIGNALS, Signal, sung } from './signals';
import { firstListeningReport, firstUnderSecondReport, twoChangesReport, twoVowelsReport } from './lessons';
import { klattSinger } from './klatt';
import { grainSinger, lfSinger, plainSinger } from './makers';
import { pianoReport } from './piano';
import { praatIsThere } from './praat';
import { singersReport } from './singers';
import { peopleSpeak, speakingSinger } from './speakers';

/** Singers of each maker, first listenings, and women with two changes. */
const SINGERS = 40;
const FIRST_LISTENINGS = 60;
const TWO_CHANGES = 40;
const TWO_VOWELS = 60;
/** Slides after a piano's note. */
const AFTER_PIANO = 100;

const lines: string[] = [];
function say(text: string) {
  console.log(text);
  lines.push(text);
}

const tracked = new Map<Rival, Map<Signal, Float32Array>>();

/** What a tracker hears in a signal, once. */
function heardBy(rival: Rival, signal: Signal): Float32Array {
  const own = tracked.get(rival) ?? new Map<Signal, Float32Array>();
  tracked.set(rival, own);
  if (!own.has(signal)) own.set(signal, rival.track(signal.pcm));
  return own.get(signal)!;
}

/** Pool frames, not signals, as the definitions do. */
function scored(rival: Rival, signals: Signal[]): PitchScore {
  const truth: number[] = [];
  const heard: number[] = [];
  for (const s of signals) {
    const got = heardBy(rival, s);
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

const percent = (x: number) => (100 * x).toFixed(1).padStart(6);
const ours: Rival = { name: 'Wendel', track: (pcm) => trackVoice(pcm).f0 };

function reportPitch(signals: Signal[], all: Rival[]) {
  say('Accuracy, % of frames (pitch within 50 / 10 cents, octave errors, voicing recall / false alarm, overall)\n');
  for (const group of [...new Set(signals.map((s) => s.group)), 'all']) {
    const own = group === 'all' ? signals : signals.filter((s) => s.group === group);
    say(group);
    for (const rival of all) {
      const s = scored(rival, own);
      const figures = [s.pitch50, s.pitch10, s.octave, s.recall, s.falseAlarm, s.overall].map(percent).join('');
      say(`  ${rival.name.padEnd(24)}${figures}`);
    }
  }
}

/** Notes of Csound's scales: found within 80 ms and 50 cents, each once. */
function reportScales() {
  let [hits, found, there] = [0, 0, 0];
  for (const { pcm, notes } of csoundScales()) {
    const heard: SungNote[] = analyseTake(pcm, 'scale').findings.notes;
    const free = new Set(heard);
    for (const n of notes) {
      const same = [...free].find((h) => Math.abs(h.startS - n.startS) <= 0.08 && Math.abs(h.midi + h.cents / 100 - n.midi) <= 0.5);
      if (same && free.delete(same)) hits++;
    }
    found += heard.length;
    there += notes.length;
  }
  if (there > 0)
    say(
      `\nScale notes of csound's voices: F1 ${((2 * hits) / (found + there)).toFixed(3)} (${hits} of ${there}, ${found - hits} too many)`,
    );
}

/** A take of a given length: one siren after another. */
function longTake(seconds: number): Pcm {
  const { samples, sampleRate } = sung('speed', 'tenor', 11).pcm;
  return { sampleRate, samples: Float32Array.from({ length: seconds * sampleRate }, (_, i) => samples[i % samples.length]) };
}

function reportSpeed(all: Rival[]) {
  const ten = longTake(10);
  for (let i = 0; i < 20; i++) analyseTake(ten, 'siren');
  const whole = timed(() => analyseTake(ten, 'siren'), 15);
  say(`\nSpeed on one core, a 10 s take at ${ten.sampleRate} Hz, pitch every 5 ms`);
  say(`  ${'whole analysis'.padEnd(34)}${(1000 * whole).toFixed(0).padStart(6)} ms   ${(10 / whole).toFixed(0)} s of sound a second`);
  const own = timed(() => ours.track(ten), 15);
  for (const { name, track } of all) {
    const s = name === ours.name ? own : timed(() => track(ten), 1);
    say(
      `  ${`pitch, ${name}`.padEnd(34)}${(1000 * s).toFixed(0).padStart(6)} ms   ${(10 / s).toFixed(1)} s a second   ${(s / own).toFixed(1)} times ours`,
    );
  }
  const live = timed(() => {
    const tracker = createLiveTracker(ten.sampleRate);
    for (let at = 0; at < ten.samples.length; at += 512) tracker.push(ten.samples.subarray(at, at + 512));
  }, 5);
  say(`  live, blocks of 512 samples: ${(10 * live).toFixed(1)} % of one core`);
  say('\nLength: time and memory of the whole analysis');
  for (const seconds of [10, 60, 180, 600]) {
    const take = longTake(seconds);
    const before = process.memoryUsage();
    const s = timed(() => analyseTake(take, 'siren'), 1);
    const after = process.memoryUsage();
    const grown = (after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers) / 1e6;
    say(
      `  ${String(seconds).padStart(4)} s   ${(1000 * s).toFixed(0).padStart(6)} ms   ${((1000 * s) / seconds).toFixed(1).padStart(5)} ms a second of sound   ${(take.samples.length * 4e-6).toFixed(0).padStart(4)} MB of samples, ${grown.toFixed(0).padStart(4)} MB grown`,
    );
  }
}

const makers = [
  ['pulses through a tract', lfSinger],
  ['sinusoids added up', plainSinger],
  ['grains of formants', grainSinger],
  ...(praatIsThere ? [['Klatt of Praat', klattSinger] as const] : []),
  ...(peopleSpeak ? [['pulses of people', speakingSinger()] as const] : []),
] as const;

const sayReports = (reports: readonly string[][]) => reports.filter((r) => r.length > 0).forEach((r) => ['', ...r].forEach(say));

const missingMakers = () => [...(praatIsThere ? [] : ['Praat']), ...(peopleSpeak ? [] : ["a man and a woman of Festival's"])];

/** Parts of the bench, each of which writes a part of docs/accuracy.md: what is measured, and in which words. */
const PARTS = {
  hearing: {
    missing: missingPrograms,
    run() {
      const signals = [...OWN_SIGNALS, ...csoundSignals()];
      const rivals = [...REGISTRY_RIVALS, ...aubioRivals()].map(
        (settings) =>
          settings.map((rival) => ({ rival, score: scored(rival, signals).overall })).sort((a, b) => b.score - a.score)[0].rival,
      );
      reportPitch(signals, [ours, ...rivals]);
      reportScales();
      reportSpeed([ours, ...rivals]);
    },
    text: `Signals are additive tones, simulated singers and, where Debian's csound is installed, its
formant voices. Of each library (and of Debian's aubio, where installed) the setting that served it best over all of them.
Speed depends on the machine: compare within this run only.`,
  },
  singers: {
    missing: missingMakers,
    run: () =>
      sayReports([
        singersReport(makers, SINGERS),
        pianoReport(
          makers.map(([, draw]) => draw),
          AFTER_PIANO,
        ),
      ]),
    text: `Singers are made by three unrelated makers, and where Debian's praat is
installed by its Klatt synthesiser, on which nothing was tuned but how noise weighs in blends and when
colour alone is a change (on other singers), and where its Festival is, of single
pulses of people whose speech was recorded, set to pitch, on which only how far up blends are looked for was (on other singers); recorded nine times of ten in a drawn room (image sources), by a
studio, laptop or phone microphone, with noise 15 to 50 dB under the voice and sometimes hum.`,
  },
  lessons: {
    missing: () => [],
    run: () => sayReports([firstListeningReport(FIRST_LISTENINGS)]),
    text: 'Singers as above, in the same rooms.',
  },
  changes: {
    missing: missingMakers,
    run: () => sayReports([twoVowelsReport(TWO_VOWELS), twoChangesReport(TWO_CHANGES), firstUnderSecondReport(TWO_CHANGES)]),
    text: 'Singers as above, in the same rooms.',
  },
};
type PartName = keyof typeof PARTS;

const [asked] = process.argv.slice(2);
if (asked && !(asked in PARTS))
  throw new Error(`There is no bench ${asked}: take one of ${Object.keys(PARTS).join(', ')}, or none for all of them.`);
for (const name of (asked ? [asked] : Object.keys(PARTS)) as PartName[]) {
  const missing = PARTS[name].missing();
  if (missing.length > 0) say(`Without ${missing.join(' and ')}: what they make and track is left out.\n`);
  PARTS[name].run();
  const table = lines
    .splice(0)
    .map((l) => `    ${l}`.trimEnd())
    .join('\n')
    .replace(/^\n+/, '');
  writeAccuracy(name, `Written by \`npm run bench -- ${name}\`. ${PARTS[name].text}\n\n${table}\n`);
}
