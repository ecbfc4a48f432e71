import { seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { songTask } from '../sim/song';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { DEMO_SONGS } from './demo-songs';
import { followSong } from './follow';
import { drawnSong, madeSongTake, SungAs } from './made-song';
import { outcomeOf, predictionOf, recordOf } from './outcome';
import { phrasesOf } from './phrases';
import { risksOf } from './risks';
import { typedSong } from './typed';
import { barAt, Song } from './types';
import { songVoice } from './voice';
import { mapOfVoice, VoiceFile } from '../format/voice-file';

/** Seeds that nothing was tuned on (0 to 29 of this maker were looked at). */
const SEEDS = Array.from({ length: 12 }, (_, i) => 500 + i);
const songOf = (seed: number, random: () => number): Song =>
  seed % 4 === 3 ? DEMO_SONGS[seed % 3] : drawnSong(random, { bars: 12 + (seed % 12) });

/** Share of notes whose beginning is found within 80 ms, and of their middles in the right bar. */
function accuracy(as: (song: Song) => SungAs, seeds = SEEDS): { onsets: number; bars: number } {
  let [onsets, bars, all] = [0, 0, 0];
  for (const seed of seeds) {
    const random = seededRandom(seed);
    const song = songOf(seed, random);
    const { trace, truth } = madeSongTake(song, random, as(song));
    const followed = followSong(song, trace);
    all += truth.length;
    for (const t of truth) {
      if (followed?.notes.some((n) => n.note === t.note && Math.abs(n.startS - t.startS) <= 0.08)) onsets++;
      const middle = (t.startS + t.endS) / 2;
      const there = followed?.notes.find((n) => n.startS <= middle && middle < n.endS);
      if (there && barAt(song, song.notes[there.note].start) === barAt(song, song.notes[t.note].start)) bars++;
    }
  }
  return { onsets: onsets / all, bars: bars / all };
}

// Wanted: 95 % of notes within 80 ms and the right bar, rubato of a fifth either way, wrong notes and a restart.
test.each<[string, (song: Song) => SungAs, number[]]>([
  ['in time', () => ({}), SEEDS],
  ['with rubato', () => ({ rubato: 0.2 }), SEEDS],
  ['with rubato, wrong notes and a restart', () => ({ rubato: 0.2, wrong: 0.08, restart: true }), SEEDS],
  ['a phrase or two of it', (song) => ({ rubato: 0.2, only: [phrasesOf(song)[1].first, phrasesOf(song)[2].last] }), SEEDS],
  ['a third higher than asked', () => ({ rubato: 0.1, semitones: 4 }), SEEDS.slice(0, 4)],
  ['an octave lower than asked', () => ({ rubato: 0.1, semitones: -12 }), SEEDS.slice(0, 4)],
])('a take %s is followed', (_, as, seeds) => {
  const { onsets, bars } = accuracy(as, seeds);
  expect(onsets).toBeGreaterThanOrEqual(0.95);
  expect(bars).toBeGreaterThanOrEqual(0.95);
});

test('one phrase of a song is found there, though sung in another key than the one asked for', () => {
  const lost: string[] = [];
  for (const song of DEMO_SONGS)
    phrasesOf(song).forEach(({ first, last }, p) => {
      for (const [sung, asked] of [
        [0, 0],
        [-12, -7],
        [-12, 0],
      ]) {
        const { trace, truth } = madeSongTake(song, seededRandom(40 + p), { only: [first, last], semitones: sung });
        const followed = followSong(song, trace, asked);
        const found = truth.filter((t) => followed?.notes.some((n) => n.note === t.note && Math.abs(n.startS - t.startS) <= 0.08));
        if (found.length < 0.8 * truth.length) lost.push(`${song.title}, phrase ${p + 1}, sung ${sung}, asked ${asked}`);
      }
    });
  expect(lost).toEqual([]);
});

test('another song is not taken for this one, nor is silence', () => {
  const wrong = SEEDS.slice(0, 4).map((seed) => {
    const random = seededRandom(seed);
    const [sung, asked] = [drawnSong(random, { bars: 10 }), drawnSong(random, { bars: 10 })];
    return followSong(asked, madeSongTake(sung, random, { rubato: 0.1 }).trace);
  });
  expect(wrong.map((f) => f?.cost ?? null)).toEqual([null, null, null, null]);
  expect(followSong(DEMO_SONGS[0], { hopS: 0.01, midi: new Array(500).fill(0), levelDb: new Array(500).fill(-70) })).toBeNull();
});

test('a note a semitone off is said to be so, and the tuning of the whole apart from it', () => {
  const song = DEMO_SONGS[2];
  const random = seededRandom(9);
  const { trace, truth } = madeSongTake(song, random);
  const t = truth[20];
  for (let i = Math.round(t.startS / 0.01); i < Math.round(t.endS / 0.01); i++) if (trace.midi[i]) trace.midi[i] -= 1;
  const followed = followSong(song, { ...trace, midi: trace.midi.map((m) => (m ? m + 0.2 : 0)) })!;
  expect(followed.tuningCents).toBeGreaterThan(10);
  expect(followed.tuningCents).toBeLessThan(30);
  const own = followed.notes.find((n) => n.note === t.note)!;
  expect(own.cents! - followed.tuningCents).toBeLessThan(-70);
  const others = followed.notes.filter((n) => n.note !== t.note && n.cents !== null);
  expect(others.filter((n) => Math.abs(n.cents! - followed.tuningCents) < 50).length / others.length).toBeGreaterThan(0.95);
});

test('a sung take, by sound: followed, and what broke is set against what was said', () => {
  const singer = typicalProfile('tenor', 'flip');
  const { upMidi, downMidi } = singer.crossings[0];
  const given = VoiceFile.parse({
    range: { touched: { low: singer.lowMidi, high: singer.highMidi } },
    passaggi: [{ up: upMidi, down: downMidi, name: 'flip' }],
    person: { voiceType: 'tenor' },
  });
  const voice = songVoice(mapOfVoice(given), 'tenor')!;
  const song = drawnSong(seededRandom(31), { bars: 16, low: 53, high: 70, tempo: 80 });
  const { pcm, truth } = sing(singer, songTask(song), { seed: 3, sampleRate: 22050, snrDb: 40 });
  const { findings, trace } = analyseTake(pcm, 'free', { asked: { slid: false } });
  const predicted = predictionOf(song, risksOf(song, voice));
  const { followed, bars, record } = outcomeOf(song, { findings, trace }, predicted, 0)!;
  const near = truth.notes.filter((t) => followed.notes.some((n) => Math.abs(n.startS - t.startS) <= 0.08));
  expect(near.length / truth.notes.length).toBeGreaterThan(0.95);
  expect(followed.semitones).toBe(0);
  // What is heard to break really broke: each in a bar in which the singer changed.
  const broke = bars.filter((b) => b.broke);
  expect(broke.length).toBeGreaterThan(0);
  for (const b of broke) expect(truth.events.some((e) => Math.abs(e.timeS - b.broke!.timeS) < 0.2)).toBe(true);
  expect(record).toEqual(recordOf(bars));
  // What wasn't sung is neither held nor broken.
  const half = outcomeOf(
    song,
    { findings, trace: { ...trace, midi: trace.midi.map((m, i) => (i * trace.hopS < 12 ? m : 0)) } },
    predicted,
    0,
  )!;
  expect(half.bars.filter((b) => !b.sung).length).toBeGreaterThan(5);
  expect(half.bars.filter((b) => !b.sung).every((b) => b.broke === null)).toBe(true);
});

test('a change leapt over by more than a fourth is neither held nor broken, unless something is heard; by a step it is told', () => {
  const given = VoiceFile.parse({ range: { touched: { low: 48, high: 74 } }, passaggi: [{ up: 64, down: 62, name: 'flip' }] });
  const voice = songVoice(mapOfVoice(given), 'tenor')!;
  const song = typedSong({
    title: 'Leaps',
    tempo: 80,
    meter: [4, 4],
    melody: 'C4 D4 E4 D4 | C4 A4:2 G4 | F4 E4 D4:2 | C4 D4 F4:2 | E4 D4 C4:2',
  });
  const { trace } = madeSongTake(song, seededRandom(4));
  const predicted = predictionOf(song, risksOf(song, voice));
  expect(predicted.map((b) => Boolean(b.leaps))).toEqual([false, true, false, false, false]);
  const { bars, record } = outcomeOf(song, { findings: { events: [] }, trace }, predicted, 0)!;
  expect(bars.map((b) => Boolean(b.untold))).toEqual([false, true, false, false, false]);
  expect(record.risky.sung + record['some care'].sung + record.safe.sung).toBe(4);
  const leap = outcomeOf(song, { findings: { events: [] }, trace }, predicted, 0)!.followed.notes.find((n) => n.note === 5)!;
  const flip = {
    timeS: leap.startS + 0.02,
    midi: 60,
    fromMidi: 60,
    toMidi: 69,
    direction: 'up',
    kind: 'flip',
    confidence: 0.9,
    dipDb: 3,
  } as const;
  const heard = outcomeOf(song, { findings: { events: [flip] }, trace }, predicted, 0)!;
  expect(heard.bars[1]).toMatchObject({ broke: { name: 'leapt' } });
  expect(heard.bars[1].untold).toBeUndefined();
});

test('a toggle is heard by its colour, though it only dips; a dip without one is a consonant', () => {
  const singer = typicalProfile('tenor', 'toggle');
  const song = drawnSong(seededRandom(8507), { bars: 12, low: singer.lowMidi + 3, high: singer.highMidi - 3 });
  const { pcm, truth } = sing(singer, songTask(song), { seed: 7, sampleRate: 22050, snrDb: 50 });
  const { findings, trace } = analyseTake(pcm, 'free', { asked: { slid: false } });
  const called = song.bars.map((_, bar) => ({ bar, called: 'safe' as const }));
  const broken = ({ bars }: NonNullable<ReturnType<typeof outcomeOf>>) => bars.filter((b) => b.broke);
  const heard = broken(outcomeOf(song, { findings, trace }, called, 0)!);
  expect(heard.length).toBeGreaterThanOrEqual(3);
  for (const b of heard) expect(truth.events.some((e) => Math.abs(e.timeS - b.broke!.timeS) < 0.2)).toBe(true);
  // The same dips, and one colour throughout.
  const plain = { ...trace, head: trace.head.map((h) => (h === 0 ? 0 : 1)) };
  const dips = findings.events.filter((e) => e.kind === 'dip');
  expect(broken(outcomeOf(song, { findings: { events: dips }, trace: plain }, called, 0)!)).toEqual([]);
});
