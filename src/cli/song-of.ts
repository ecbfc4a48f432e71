import { allInEnglish, inEnglish } from '../core/format/say';
import type { SongFile } from '../core/format/song-musicxml';
import type { VoiceFile } from '../core/format/voice-file';
import { mapOfVoice } from '../core/format/voice-file';
import { readWav } from '../core/format/wav';
import { noteName } from '../core/music/pitch';
import { BY_AGE } from '../core/plan/ages';
import { crossingsOf } from '../core/song/crossings';
import { FOLLOWED } from '../core/song/follow';
import { keysFor, octaveFor, SongKey } from '../core/song/keys';
import { keptOf, outcomeOf, predictionOf } from '../core/song/outcome';
import { phrasesOf } from '../core/song/phrases';
import { barRisks, levelOf, PhraseRisk } from '../core/song/risks';
import { Tessitura } from '../core/song/tessitura';
import { barAt, secondsAt, Song } from '../core/song/types';
import { registerIn, takenAs } from '../core/song/taken';
import { songVoice, SongVoice } from '../core/song/voice';
import { isHigh, WAYS, waysFor } from '../core/song/ways';
import { breakInWords, keyBecause, keyInWords, phraseInWords, riskInWords, songCautions } from '../core/song/words';
import { namesFlats } from '../core/song/written';
import { analyseTake } from '../core/take/analyse';

const round = (x: number, by = 100) => Math.round(x * by) / by;
const rangeJson = (low: number, high: number, flats = false) => ({
  low,
  high,
  lowName: noteName(low, flats),
  highName: noteName(high, flats),
});
const tessituraJson = ({ low, high, mean, histogram }: Tessitura) => ({
  ...rangeJson(low, high),
  mean: round(mean),
  histogram: histogram.map((h) => ({ midi: h.midi, seconds: round(h.seconds) })),
});
/** A bar as it is printed: a number where it is one. */
const barNo = ({ bars }: Song, bar: number): number | string =>
  /^\d+$/.test(bars[bar].number) ? Number(bars[bar].number) : bars[bar].number;

const printed = (song: Song, { firstBar, lastBar }: { firstBar: number; lastBar: number }) =>
  Array.from({ length: lastBar - firstBar + 1 }, (_, i) => barNo(song, firstBar + i));

/**
 * What `npm run -s song -- ... --json` prints (docs/song.schema.json): the song as this voice meets it, its keys in order, and, where a take
 * is given, what came true. @throws Error in words when nothing was ever sung, or the take can't be read.
 */
export function songJson({ song, part, parts }: SongFile, given: VoiceFile, wav: Buffer | null) {
  const { voiceType, changing, age } = given.person;
  const voice = songVoice(mapOfVoice(given), voiceType, changing || BY_AGE[age].band);
  if (!voice) throw new Error('The voice’s file gives no range.');
  const octave = octaveFor(song, voice);
  const keys = keysFor(song, voice);
  const original = keys.find((k) => k.original)!;
  const best = keys[0];
  const { flats } = original;
  const phraseJson = (p: PhraseRisk) => ({
    bars: printed(song, p),
    seconds: round(p.seconds),
    risk: round(p.risk),
    level: p.level,
    because: phraseInWords(p, voice, flats),
    reasons: p.risks.map((r) => ({
      code: r.name,
      bar: barNo(song, r.bar),
      midi: r.midi,
      weight: round(r.weight),
      says: riskInWords(r, voice, flats),
    })),
    ways: isHigh(song, p, voice, original.semitones)
      ? waysFor(song, p, voice, original.semitones).map(({ way, fit, sounds, says, dose, caution }) => ({
          way,
          fit,
          sounds,
          says,
          dose,
          caution,
        }))
      : [],
  });
  const keyJson = (k: SongKey) => ({
    semitones: k.semitones,
    key: k.key,
    says: keyInWords(k, octave),
    original: k.original,
    fits: k.standing === 'fits',
    standing: k.standing,
    risk: round(k.risk),
    level: k.level,
    because: keyBecause(k, keys, song, voice),
    range: rangeJson(k.tessitura.lowest, k.tessitura.highest, k.flats),
    tessitura: rangeJson(k.tessitura.low, k.tessitura.high, k.flats),
    atTheChangeS: round(k.atTheChangeS),
    crossings: k.crossings.length,
    riskyPhrases: k.phrases.filter((p) => p.level === 'risky').length,
    decidingBars: k.deciding.map((d) => ({
      bar: barNo(song, d.bar),
      midi: d.midi,
      code: d.risk?.name ?? d.is,
      because: d.risk
        ? riskInWords(d.risk, voice, k.flats)
        : `${noteName(d.midi, k.flats)}, its ${d.is === 'top' ? 'highest' : 'lowest'} note`,
    })),
  });
  const at = original.semitones;
  return allInEnglish({
    title: song.title,
    part,
    parts,
    bars: song.bars.length,
    notes: song.notes.length,
    seconds: round(secondsAt(song, song.bars[song.bars.length - 1].start + song.bars[song.bars.length - 1].beats)),
    octave,
    voice: {
      ...rangeJson(voice.low, voice.high),
      changes: voice.changes.map((c) => ({ up: c.up, down: c.down, name: c.name, confidence: c.confidence })),
    },
    range: rangeJson(original.tessitura.lowest, original.tessitura.highest, flats),
    tessitura: tessituraJson(original.tessitura),
    atTheChangeS: round(original.atTheChangeS),
    crossings: crossingsOf(song, phrasesOf(song), voice, at).map((c) => ({
      bar: barNo(song, c.bar),
      from: c.from,
      to: c.to,
      direction: c.direction,
      by: c.by,
      change: c.change,
      words: c.words,
    })),
    phrases: original.phrases.map(phraseJson),
    barRisks: [...barRisks(song, original.phrases)].map(([bar, risk]) => ({
      bar: barNo(song, bar),
      risk: round(risk),
      level: levelOf(risk),
    })),
    transpositions: keys.map(keyJson),
    cautions: songCautions(best, original, voice),
    take: wav && takeJson(song, original, voice, wav),
  });
}

/** A take of the song in its original key (another one is found), and what came true of what was said before. */
function takeJson(song: Song, key: SongKey, voice: SongVoice, wav: Buffer) {
  const { findings, trace } = analyseTake(readWav(wav), 'free', { asked: { slid: false } });
  const outcome = findings.quality.usable ? outcomeOf(song, { findings, trace }, predictionOf(song, key.phrases), key.semitones) : null;
  if (!outcome)
    return {
      followed: false,
      because: findings.quality.usable
        ? 'What was sung could not be laid over this song: another song, another part, or nothing of it long enough.'
        : findings.quality.reasons.map(inEnglish).join(' '),
      semitones: null,
      tuningCents: null,
      pace: null,
      cost: null,
      notes: [],
      bars: [],
      phrases: [],
      record: null,
    };
  const { followed, bars, record } = outcome;
  const kept = keptOf(outcome, trace);
  const broke = bars.filter((b) => b.broke);
  const risky = record.risky;
  return {
    followed: true,
    because:
      broke.length === 0
        ? `Nothing broke${bars.some((b) => b.untold) ? ' that can be told' : ''}.`
        : `${broke.length} bar${broke.length === 1 ? '' : 's'} broke; of ${risky.sung} called risky, ${risky.broke}; of ${record.safe.sung} called safe, ${record.safe.broke}.`,
    semitones: followed.semitones,
    tuningCents: followed.tuningCents,
    pace: round(followed.pace),
    cost: round(followed.cost / FOLLOWED),
    notes: followed.notes.map((s) => ({
      note: s.note,
      bar: barNo(song, barAt(song, song.notes[s.note].start)),
      midi: song.notes[s.note].midi + followed.semitones,
      startS: round(s.startS, 1000),
      endS: round(s.endS, 1000),
      sungMidi: s.sungMidi === null ? null : round(s.sungMidi),
      cents: s.cents,
      words: song.notes[s.note].words,
    })),
    bars: bars.map((b) => ({
      bar: barNo(song, b.bar),
      called: b.called,
      sung: b.sung,
      told: b.sung && !b.untold,
      broke: b.broke !== null,
      code: b.broke?.name ?? null,
      because: b.broke && breakInWords(b.broke, namesFlats(song, followed.semitones)),
      inTune: round(b.inTune),
    })),
    phrases: phrasesOf(song).map((p) => ({
      bars: printed(song, p),
      register: registerIn(song, kept, p, voice),
      ways: WAYS.flatMap((way) => {
        const taken = takenAs(song, kept, p, way, voice);
        return taken ? [{ way, ...taken }] : [];
      }),
    })),
    record,
  };
}
