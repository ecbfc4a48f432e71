import { mapOfVoice, VoiceFile } from '../../core/format/voice-file';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { seededRandom } from '../../core/signal/stats';
import { sing } from '../../core/sim/sing';
import { songTask } from '../../core/sim/song';
import { typicalProfile } from '../../core/sim/typical';
import { keysFor } from '../../core/song/keys';
import { drawnSong, madeSongTake } from '../../core/song/made-song';
import { followSong } from '../../core/song/follow';
import { outcomeOf, predictionOf } from '../../core/song/outcome';
import { Level, LEVELS, risksOf } from '../../core/song/risks';
import { barAt } from '../../core/song/types';
import { songVoice } from '../../core/song/voice';
import { analyseTake } from '../../core/take/analyse';
import { writeAccuracy } from './accuracy-page';
import { foundIn, NEAR_S } from './found-in';
import { picker, RATE } from './makers';
import { drawRecording } from './recording';
import { singsWords, sungOnWords } from './sung-words';

const STYLES = ['flip', 'toggle', 'blend', 'pulled'] as const;
/** A note that begins so soon after another hasn't been breathed before, seconds. */
const JOINED_S = 0.02;
const percent = (n: number, of: number) => `${((100 * n) / Math.max(1, of)).toFixed(0)} %`.padStart(6);

/** Drawn melodies sung by drawn voices in drawn rooms: how well takes are followed, and how often bars called something broke. */
function sungInRooms(takes: number, first: number): string[] {
  const count = Object.fromEntries(LEVELS.map((l) => [l, { sung: 0, broke: 0, heard: 0, both: 0 }])) as Record<
    Level,
    { sung: number; broke: number; heard: number; both: number }
  >;
  const found = { told: { notes: 0, near: 0 }, repeated: { notes: 0, near: 0 } };
  let [lost, untold] = [0, 0];
  for (let s = first; s < first + takes; s++) {
    const random = seededRandom(9000 + s);
    const type = picker(random)(VOICE_TYPES).id;
    const style = STYLES[s % STYLES.length];
    const singer = typicalProfile(type, style);
    const { upMidi, downMidi } = singer.crossings[0];
    const given = VoiceFile.parse({
      range: {
        touched: { low: singer.lowMidi, high: singer.highMidi },
        usable: { low: singer.lowMidi + 1, high: singer.highMidi - 1 },
      },
      passaggi: style === 'pulled' ? [] : [{ up: upMidi, down: downMidi, name: style === 'blend' ? 'blended' : style }],
      findings: style === 'pulled' ? [{ name: 'pulled-chest', midi: upMidi }] : [],
      person: { voiceType: type },
    });
    const voice = songVoice(mapOfVoice(given), type)!;
    const song = drawnSong(random, { bars: 12, low: singer.lowMidi + 3, high: singer.highMidi - 3 });
    const { pcm, truth } = sing(singer, songTask(song), { seed: s, sampleRate: RATE, snrDb: 70 });
    const { findings, trace } = analyseTake(drawRecording(s).of(pcm, 0), 'free', { asked: { slid: false } });
    const outcome = findings.quality.usable ? outcomeOf(song, { findings, trace }, predictionOf(song, risksOf(song, voice)), 0) : null;
    truth.notes.forEach(({ startS, midi }, i) => {
      const before = truth.notes[i - 1];
      const of = before && before.midi === midi && startS - before.endS < JOINED_S ? found.repeated : found.told;
      of.notes++;
      if (outcome?.followed.notes.some((n) => n.note === i && Math.abs(n.startS - startS) <= NEAR_S)) of.near++;
    });
    if (!outcome) {
      lost++;
      continue;
    }
    const trulyBroke = new Set(
      truth.events.map((e) => {
        const n = truth.notes.findIndex((note) => e.timeS >= note.startS - 0.01 && e.timeS < note.endS);
        return n < 0 ? -1 : barAt(song, song.notes[n].start);
      }),
    );
    for (const b of outcome.bars) {
      if (!b.sung) continue;
      if (b.untold) {
        untold++;
        continue;
      }
      const own = count[b.called];
      own.sung++;
      if (trulyBroke.has(b.bar)) own.broke++;
      if (b.broke) own.heard++;
      if (b.broke && trulyBroke.has(b.bar)) own.both++;
    }
  }
  const rows = LEVELS.map(
    (l) =>
      `      ${l.padEnd(10)} ${String(count[l].sung).padStart(5)} bars   truly broke ${percent(count[l].broke, count[l].sung)}   heard to break ${percent(count[l].heard, count[l].sung)}`,
  );
  const all = LEVELS.map((l) => count[l]);
  const sum = (of: (c: (typeof all)[number]) => number) => all.reduce((n, c) => n + of(c), 0);
  return [
    `    ${takes} takes on one vowel in rooms, 12 bars each: notes found within 80 ms ${percent(found.told.near, found.told.notes).trim()}; of those that go on at the same pitch, which`,
    `    nothing in the sound tells from one long note, ${percent(found.repeated.near, found.repeated.notes).trim()}; not followed ${lost}`,
    '    called before it was sung',
    ...rows,
    `    of the bars that broke heard ${percent(
      sum((c) => c.both),
      sum((c) => c.broke),
    ).trim()}; of those heard to break true ${percent(
      sum((c) => c.both),
      sum((c) => c.heard),
    ).trim()}; ${untold} bars more leap over a change, where it can't be told`,
  ];
}

/** Songs on words by another maker's voice in drawn rooms, with what singers do to them. */
function onWords(takes: number, first: number): string {
  if (!singsWords) return '    Festival is not here (apt-get install festival festvox-kallpc16k): songs on words are left out';
  let [notes, near, bars] = [0, 0, 0];
  for (let s = first; s < first + takes; s++) {
    const { song, pcm, truth } = sungOnWords(seededRandom(8000 + s), { rubato: 0.2, wrong: 0.08, restart: true });
    const { trace } = analyseTake(drawRecording(8000 + s).of(pcm, 0), 'free', { asked: { slid: false } });
    const found = foundIn(song, truth, followSong(song, trace));
    notes += truth.length;
    near += found.near;
    bars += found.inBar;
  }
  return `    ${takes} takes on words by Festival in rooms, rubato of a fifth, 8 % wrong notes, begun again: notes found within 80 ms ${percent(near, notes).trim()}, in the right bar ${percent(bars, notes).trim()}`;
}

/** Pitch curves of drawn melodies with what singers do to them: how well they are followed. */
function curves(takes: number, first: number): string[] {
  const ways = [
    ['in time', {}],
    ['rubato of a fifth', { rubato: 0.2 }],
    ['and 8 % wrong notes, begun again', { rubato: 0.2, wrong: 0.08, restart: true }],
    ['a fourth higher than asked', { rubato: 0.2, semitones: 5 }],
  ] as const;
  return ways.map(([name, as]) => {
    let [notes, near] = [0, 0];
    for (let s = first; s < first + takes; s++) {
      const random = seededRandom(7000 + s);
      const song = drawnSong(random, { bars: 12 + (s % 20) });
      const { trace, truth } = madeSongTake(song, random, as);
      const followed = followSong(song, trace);
      notes += truth.length;
      near += truth.filter((t) => followed?.notes.some((n) => n.note === t.note && Math.abs(n.startS - t.startS) <= NEAR_S)).length;
    }
    return `      ${name.padEnd(34)} ${percent(near, notes)}`;
  });
}

/** How long twelve keys and more take, beside following a take, in one run. */
function speed(): string {
  const song = drawnSong(seededRandom(1), { bars: 60 });
  const given = VoiceFile.parse({ range: { touched: { low: 53, high: 81 } }, passaggi: [{ up: 64, down: 62, name: 'flip' }] });
  const voice = songVoice(mapOfVoice(given), 'mezzo')!;
  const timed = (work: () => void) => {
    const times = Array.from({ length: 7 }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    }).sort((a, b) => a - b);
    return times[3];
  };
  const keys = timed(() => keysFor(song, voice));
  const { trace } = madeSongTake(song, seededRandom(2), { rubato: 0.2 });
  const follow = timed(() => followSong(song, trace));
  return `    A song of 60 bars (${song.notes.length} notes): ${keysFor(song, voice).length} keys ranked in ${keys.toFixed(0)} ms, a take of ${(trace.midi.length / 100).toFixed(0)} s followed in ${follow.toFixed(0)} ms (medians of 7)`;
}

/** How many takes, and from which on: others than the first 40, which constants of following were tuned on. */
const [takes, first] = [Number(process.argv[2] ?? 40), Number(process.argv[3] ?? 0)];
const table = [
  ...sungInRooms(takes, first),
  onWords(takes, first),
  '    Pitch curves with what singers do to them, notes found within 80 ms',
  ...curves(takes, first),
  speed(),
].join('\n');
writeAccuracy(
  'songs',
  `Written by \`npm run bench -- songs ${takes} ${first}\`: melodies drawn at random, sung by simulated voices that flip, toggle, blend and pull, recorded as the
singers above. What is called risky is told from the voice's map alone, before anything is sung.

${table}`,
);
process.stdout.write(`${table}\n`);
