import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readWav } from '../../core/format/wav';
import { noteName } from '../../core/music/pitch';
import { resample } from '../../core/signal/resample';
import { quantile } from '../../core/signal/stats';
import { drawnSong, SungAs, wayThrough } from '../../core/song/made-song';
import type { Song } from '../../core/song/types';
import type { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';
import type { Beginning } from './found-in';
import { picker, RATE } from './makers';

const FESTIVAL = '/usr/bin/festival';
export const singsWords = existsSync(FESTIVAL) && existsSync('/usr/share/festival/voices/english/kal_diphone');

/** Words of one vowel, by how many consonants go before it. */
const WORDS = [
  'all',
  'law day moon sing low me you night so far way home sea rain near go love wind one time hill now',
  'blue stay',
].flatMap((words, consonants) => words.split(' ').map((word) => ({ word, consonants })));
const VOWEL = /^(aa|ae|ah|ao|aw|ax|ay|eh|er|ey|ih|iy|ow|oy|uh|uw)$/;
/** What a man's voice of diphones sings without breaking. */
const LOW = 45;
const HIGH = 62;
/** Festival calls the A of 440 Hz A5. */
const ITS_OCTAVE = 12;
/** A vowel has come when it is this near to how loud the note is. */
const COMES_WITHIN_DB = 6;
const HOP_S = 0.01;

/**
 * A song drawn at random, sung on words by Festival (its singing mode: diphones of a recorded man, set to pitch), with what singers do
 * to it: a maker that shares nothing with ours.
 * A note begins between its syllable's first sound and its vowel as loud as the note.
 * @throws Error where Festival doesn't say which sounds it sang.
 */
export function sungOnWords(random: () => number, as: SungAs, bars = 12): { song: Song; pcm: Pcm; truth: Beginning[] } {
  const song = drawnSong(random, { bars, low: LOW, high: HIGH });
  const pick = picker(random);
  const steps = wayThrough(song, random, as).map((step) => ({ ...step, ...pick(WORDS) }));
  const lines = steps.map(({ note, midi, seconds, word }) => {
    const lasts = `SECONDS="${seconds.toFixed(3)}"`;
    if (note === null) return `<REST ${lasts}></REST>`;
    return `<PITCH NOTE="${plainName(midi + ITS_OCTAVE)}"><DURATION ${lasts}>${word}</DURATION></PITCH>`;
  });
  const { pcm, sounds } = sungBy(
    `<?xml version="1.0"?>\n<!DOCTYPE SINGING PUBLIC "-//SINGING//DTD SINGING mark up//EN" "Singing.v0_1.dtd" []>\n<SINGING BPM="60">\n${lines.join('\n')}\n</SINGING>\n`,
  );
  const sung = steps.filter((step) => step.note !== null);
  const vowels = sounds.flatMap(({ name }, i) => (VOWEL.test(name) ? [i] : []));
  if (vowels.length !== sung.length) throw new Error(`Festival sang ${vowels.length} vowels for ${sung.length} notes.`);
  const levels = levelsOf(pcm);
  const truth = sung.map(({ note, consonants }, i): Beginning => {
    const vowel = sounds[vowels[i]];
    const held = [...levels.slice(Math.round(vowel.startS / HOP_S), Math.round(vowel.endS / HOP_S))];
    const loud = quantile(held, 0.75) - COMES_WITHIN_DB;
    const comes = held.findIndex((db) => db >= loud);
    return { note: note!, fromS: sounds[vowels[i] - consonants].startS, byS: vowel.startS + HOP_S * Math.max(0, comes) };
  });
  return { song, pcm: { samples: wandering(resample(pcm.samples, pcm.sampleRate, RATE), random), sampleRate: RATE }, truth };
}

/** Diphones set to a pitch hold it as no singer does, and as struck strings do: vibrato and drift of so many cents (common practice, no source). */
const WANDERS = [
  { cents: 15, hz: 5.3 },
  { cents: 8, hz: 1.1 },
];

/** Played a little faster and slower by turns: no moment moves by over 2 ms. */
function wandering(samples: Float32Array, random: () => number): Float32Array {
  const ways = WANDERS.map(({ cents, hz }) => ({
    share: (Math.LN2 * cents) / 1200,
    turn: (2 * Math.PI * hz) / RATE,
    from: 2 * Math.PI * random(),
  }));
  let at = 0;
  return samples.map((_, i) => {
    const before = Math.min(samples.length - 2, Math.floor(at));
    const x = samples[before] + (at - before) * (samples[before + 1] - samples[before]);
    at += 1 + ways.reduce((sum, { share, turn, from }) => sum + share * Math.sin(from + turn * i), 0);
    return x;
  });
}

/** C#4, as Festival reads it. */
const plainName = (midi: number) => noteName(midi).replace('♯', '#').replace('♭', 'b');

function levelsOf({ samples, sampleRate }: Pcm): Float64Array {
  const half = Math.round(HOP_S * sampleRate);
  return Float64Array.from({ length: Math.floor(samples.length / half) }, (_, f) => {
    const around = samples.subarray(Math.max(0, (f - 1) * half), (f + 1) * half);
    return 10 * Math.log10(around.reduce((sum, x) => sum + x * x, 1e-12) / around.length);
  });
}

/** What it sings, and which sound lies where. */
function sungBy(xml: string): { pcm: Pcm; sounds: { name: string; startS: number; endS: number }[] } {
  return inFolder((folder) => {
    const [score, program, wav, labels] = ['song.xml', 'sing.scm', 'song.wav', 'song.lab'].map((name) => join(folder, name));
    writeFileSync(score, xml);
    // What it sings it would also play: it plays to nobody.
    writeFileSync(
      program,
      `(set! after_synth_hooks (list (lambda (utt) (utt.save.segs utt "${labels}") (utt.save.wave utt "${wav}"))))
(Parameter.set 'Audio_Method 'Audio_Command)
(Parameter.set 'Audio_Command "true")
(tts_file "${score}" 'singing)
`,
    );
    ranProgram(FESTIVAL, ['-b', program]);
    let endS = 0;
    const sounds = readFileSync(labels, 'utf8')
      .split('\n')
      .slice(1)
      .filter(Boolean)
      .map((line) => {
        const [end, , name] = line.trim().split(/\s+/);
        const startS = endS;
        endS = Number(end);
        return { name, startS, endS };
      });
    return { pcm: readWav(readFileSync(wav)), sounds };
  });
}
