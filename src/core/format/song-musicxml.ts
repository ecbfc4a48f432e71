import { said } from '../words/said';
import { unzipSync } from 'fflate';
import { XMLBuilder, XMLParser } from 'fast-xml-parser';
import { Bar, LoudnessMark, MARKS, Song, SongNote, TempoMark } from '../song/types';
import { fifthsOf, writtenBars, WrittenSign } from '../song/written';
import { MusicFileError } from './music-file';

/** A part of a score that could be the melody. */
export interface SongPart {
  id: string;
  name: string;
  notes: number;
  /** Syllables under it. */
  words: number;
  /** Sounds more than one note at once. */
  chords: boolean;
}

/** A song out of a file, and the parts it could have been. */
export interface SongFile {
  song: Song;
  parts: SongPart[];
  /** The part that was taken. */
  part: string;
}

/** Larger than this no song is: a whole orchestral score is asked to be cut down first. */
export const MOST_FILE_BYTES = 8e6;
/** Tempo where a file says none, crotchets a minute. */
const USUAL_TEMPO = 90;

const STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
/** Crotchets of the beat a metronome mark names. */
const UNITS: Record<string, number> = { whole: 4, half: 2, quarter: 1, eighth: 0.5, '16th': 0.25 };
const SUNG = /voice|vocal|sing|melod|sopran|alt|tenor|bass|bariton|mezzo|solo|canto|chant|gesang/i;

/** An element with its children in the order written. */
interface Node {
  name: string;
  attributes: Record<string, string>;
  children: Node[];
  text: string;
}

type Raw = Record<string, unknown>;

function nodeOf(raw: Raw): Node {
  const name = Object.keys(raw).find((k) => k !== ':@') ?? '';
  const inside = raw[name];
  const children = Array.isArray(inside) ? (inside as Raw[]) : [];
  return {
    name,
    attributes: (raw[':@'] ?? {}) as Record<string, string>,
    children: children.filter((c) => !('#text' in c)).map(nodeOf),
    text: children.map((c) => ('#text' in c ? String(c['#text']) : '')).join(''),
  };
}

const child = (node: Node | undefined, ...path: string[]): Node | undefined =>
  path.reduce<Node | undefined>((n, name) => n?.children.find((c) => c.name === name), node);
const all = (node: Node | undefined, name: string): Node[] => node?.children.filter((c) => c.name === name) ?? [];
const number = (node: Node | undefined): number | undefined => {
  const n = node ? Number(node.text) : NaN;
  return Number.isFinite(n) ? n : undefined;
};

/**
 * The melody of a MusicXML file, plain (.musicxml) or compressed (.mxl): of the part asked for, else of the one with words or a singer's
 * name, else the first. Repeats are read once, as printed. @throws MusicFileError with what to do.
 */
export function songFromMusicXml(bytes: Uint8Array, wanted?: string): SongFile {
  if (bytes.length > MOST_FILE_BYTES)
    throw new MusicFileError(
      said('This file is larger than {most} MB: export the singer’s part alone and try again.', { most: MOST_FILE_BYTES / 1e6 }),
    );
  const text = bytes[0] === 0x50 && bytes[1] === 0x4b ? unpacked(bytes) : decoded(bytes);
  const score = scoreOf(text);
  const names = new Map(
    all(child(score, 'part-list'), 'score-part').map((p) => [p.attributes.id, child(p, 'part-name')?.text.trim() ?? '']),
  );
  const parts = all(score, 'part').map((node) => ({ node, id: node.attributes.id ?? '', name: names.get(node.attributes.id) ?? '' }));
  const read = parts.map(({ node, id, name }) => ({ id, name, ...readPart(node) }));
  const known = read.map(({ id, name, notes, chords }): SongPart => ({
    id,
    name,
    notes: notes.length,
    words: notes.filter((n) => n.words).length,
    chords,
  }));
  if (known.every((p) => p.notes === 0)) throw new MusicFileError('There are no notes in this file.');
  const taken = wanted === undefined ? likeliest(known) : known.findIndex((p) => p.id === wanted && p.notes > 0);
  if (taken < 0) throw new MusicFileError('There is no such part with notes in this file.');
  if (known[taken].chords)
    throw new MusicFileError(
      known[taken].name
        ? said('The part “{name}” sounds more than one note at once: keep only the melody, or choose another part.', {
            name: { own: known[taken].name },
          })
        : 'This part sounds more than one note at once: keep only the melody, or choose another part.',
    );
  const { notes, bars, tempi, meter, fifths } = read[taken];
  const marks = read.flatMap((r) => r.tempi).sort((a, b) => a.start - b.start);
  return {
    song: {
      title: child(score, 'work', 'work-title')?.text.trim() || child(score, 'movement-title')?.text.trim() || 'Untitled',
      style: '',
      language: '',
      meter,
      fifths,
      tempi: tidyTempi(tempi.length ? tempi : marks),
      bars,
      notes,
    },
    parts: known,
    part: known[taken].id,
  };
}

/** A part with words goes first, then one with a singer's name, then the first that is one voice. */
function likeliest(parts: readonly SongPart[]): number {
  const score = (p: SongPart) => (p.notes === 0 ? -1 : (p.chords ? 0 : 4) + (p.words > 0 ? 2 : 0) + (SUNG.test(p.name) ? 1 : 0));
  return parts.reduce((best, p, i) => (score(p) > score(parts[best]) ? i : best), 0);
}

function decoded(bytes: Uint8Array): string {
  const [a, b] = bytes;
  const utf16 = a === 0xfe && b === 0xff ? 'utf-16be' : a === 0xff && b === 0xfe ? 'utf-16le' : 'utf-8';
  return new TextDecoder(utf16).decode(bytes);
}

/** The score inside a compressed file: what its container names. */
function unpacked(bytes: Uint8Array): string {
  const broken = new MusicFileError('This compressed score (.mxl) can’t be unpacked: export it anew, or as uncompressed MusicXML.');
  let files: Record<string, Uint8Array>;
  let tooLarge = false;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (originalSize > MOST_FILE_BYTES) tooLarge = true;
        return /\.(xml|musicxml)$/i.test(name) && originalSize <= MOST_FILE_BYTES;
      },
    });
  } catch {
    throw broken;
  }
  const container = files['META-INF/container.xml'];
  const named = container && /full-path\s*=\s*["']([^"']+)["']/.exec(decoded(container))?.[1];
  const name = named && files[named] ? named : Object.keys(files).find((f) => !f.startsWith('META-INF/'));
  if (name) return decoded(files[name]);
  throw tooLarge
    ? new MusicFileError(
        said('The score in this file is larger than {most} MB: export the singer’s part alone and try again.', {
          most: MOST_FILE_BYTES / 1e6,
        }),
      )
    : broken;
}

function scoreOf(text: string): Node {
  const no = new MusicFileError('This is not a MusicXML file, or it is damaged: export it anew as MusicXML and try again.');
  let raw: Raw[];
  try {
    raw = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', preserveOrder: true, parseTagValue: false }).parse(
      text,
      true,
    ) as Raw[];
  } catch {
    throw no;
  }
  const root = raw.map(nodeOf).find((n) => n.name.startsWith('score-'));
  if (root?.name === 'score-timewise')
    throw new MusicFileError('This score is written bar by bar (timewise): export it as partwise MusicXML and try again.');
  if (!root) throw no;
  return root;
}

interface Read {
  notes: SongNote[];
  bars: Bar[];
  tempi: TempoMark[];
  meter: [number, number];
  fifths: number;
  chords: boolean;
}

/** One part, read in the order written: its first voice with notes, and what stands over it. */
function readPart(part: Node): Read {
  const out: Read = { notes: [], bars: [], tempi: [], meter: [4, 4], fifths: 0, chords: false };
  const voice = voiceOf(part);
  let divisions = 1;
  let transpose = 0;
  let start = 0;
  let loud: LoudnessMark | undefined;
  let tied = false;
  let meterSet = false;
  let [beats, kind] = out.meter;
  for (const measure of all(part, 'measure')) {
    let at = 0;
    let longest = 0;
    for (const node of measure.children) {
      if (node.name === 'attributes') {
        divisions = number(child(node, 'divisions')) ?? divisions;
        const t = child(node, 'transpose');
        if (t) transpose = (number(child(t, 'chromatic')) ?? 0) + 12 * (number(child(t, 'octave-change')) ?? 0);
        const time = child(node, 'time');
        const [b, k] = [number(child(time, 'beats')), number(child(time, 'beat-type'))];
        if (b && k) {
          [beats, kind] = [b, k];
          if (!meterSet) out.meter = [b, k];
          meterSet = true;
        }
        const fifths = number(child(node, 'key', 'fifths'));
        if (fifths !== undefined && out.notes.length === 0) out.fifths = fifths;
      } else if (node.name === 'backup') at -= (number(child(node, 'duration')) ?? 0) / divisions;
      else if (node.name === 'forward') at += (number(child(node, 'duration')) ?? 0) / divisions;
      else if (node.name === 'direction' || node.name === 'sound') {
        const tempo = tempoOf(node);
        if (tempo) out.tempi.push({ start: start + Math.max(0, at), tempo });
        loud = all(node, 'direction-type').map(loudnessOf).find(Boolean) ?? loud;
      } else if (node.name === 'note') {
        if (child(node, 'grace') || child(node, 'cue')) continue;
        const long = (number(child(node, 'duration')) ?? 0) / divisions;
        const own = (child(node, 'voice')?.text ?? '1') === voice;
        if (child(node, 'chord')) {
          if (own) out.chords = true;
          continue;
        }
        if (own) tied = take(node, start + at, long) ?? tied;
        at += long;
      }
      longest = Math.max(longest, at);
    }
    const full = (beats * 4) / kind;
    // A bar is as long as what stands in it; an empty one as its meter says.
    const long = longest > 0 ? longest : full;
    out.bars.push({ number: measure.attributes.number ?? String(out.bars.length + 1), start, beats: long });
    start += long;
  }
  // A tie to nothing, and a slide from the last note, lead nowhere.
  if (out.notes.length) delete out.notes[out.notes.length - 1].slide;
  return out;

  function take(node: Node, place: number, long: number): boolean | undefined {
    const pitch = child(node, 'pitch');
    if (!pitch || child(node, 'rest')) return false;
    if (!(long > 0)) return undefined;
    const step = STEPS[child(pitch, 'step')?.text.trim() ?? ''];
    const octave = number(child(pitch, 'octave'));
    if (step === undefined || octave === undefined)
      throw new MusicFileError('A note of this file has no pitch: export it anew and try again.');
    const midi = Math.round(step + (number(child(pitch, 'alter')) ?? 0) + 12 * (octave + 1) + transpose);
    const last = out.notes[out.notes.length - 1];
    const notations = all(node, 'notations');
    const starts = (name: string) => notations.some((n) => all(n, name).some((s) => s.attributes.type === 'start'));
    const slide = starts('slide') || starts('glissando');
    const breath = notations.some(
      (n) => child(n, 'articulations', 'breath-mark') || child(n, 'articulations', 'caesura') || child(n, 'fermata'),
    );
    const ties = all(node, 'tie').map((t) => t.attributes.type);
    if (tied && ties.includes('stop') && last?.midi === midi) {
      last.beats = place + long - last.start;
      if (slide) last.slide = true;
      if (breath) last.breath = true;
    } else
      out.notes.push({
        midi,
        start: place,
        beats: long,
        words: wordsOf(node),
        ...(slide ? { slide: true } : {}),
        ...(loud ? { loud } : {}),
        ...(breath ? { breath: true } : {}),
      });
    return ties.includes('start');
  }
}

/** The voice of a part that is sung: with the most syllables, else the first with notes. */
function voiceOf(part: Node): string {
  const words = new Map<string, number>();
  for (const measure of all(part, 'measure'))
    for (const note of all(measure, 'note')) {
      if (!child(note, 'pitch')) continue;
      const voice = child(note, 'voice')?.text ?? '1';
      words.set(voice, (words.get(voice) ?? 0) + (child(note, 'lyric') ? 1 : 0));
    }
  return [...words].reduce((best, v) => (v[1] > best[1] ? v : best), [...words][0] ?? ['1', 0])[0];
}

/** The syllable of the first verse, with a hyphen where the word goes on. */
function wordsOf(note: Node): string {
  const lyrics = all(note, 'lyric');
  const lyric = lyrics.find((l) => (l.attributes.number ?? '1') === '1') ?? lyrics[0];
  const text = all(lyric, 'text')
    .map((t) => t.text.trim())
    .join(' ')
    .slice(0, 58);
  const syllabic = child(lyric, 'syllabic')?.text;
  return text && (syllabic === 'begin' || syllabic === 'middle') ? `${text}-` : text;
}

function tempoOf(node: Node): number | undefined {
  const sound = node.name === 'sound' ? node : child(node, 'sound');
  const said = Number(sound?.attributes.tempo);
  if (said >= 10 && said <= 500) return said;
  const mark = child(node, 'direction-type', 'metronome');
  const unit = UNITS[child(mark, 'beat-unit')?.text ?? ''];
  const perMinute = Number(/\d+(\.\d+)?/.exec(child(mark, 'per-minute')?.text ?? '')?.[0]);
  const tempo = unit ? perMinute * unit * (child(mark, 'beat-unit-dot') ? 1.5 : 1) : NaN;
  return tempo >= 10 && tempo <= 500 ? tempo : undefined;
}

function loudnessOf(type: Node): LoudnessMark | undefined {
  const name = child(type, 'dynamics')?.children[0]?.name;
  if (name === undefined) return undefined;
  if ((MARKS as readonly string[]).includes(name)) return name as LoudnessMark;
  return /^f{3,}|^[sr]?fz?|^sfp/.test(name) ? 'ff' : /^p{3,}/.test(name) ? 'pp' : undefined;
}

/** Tempo marks in order, the first at the beginning, none twice at one place. */
export function tidyTempi(marks: readonly TempoMark[]): TempoMark[] {
  const out: TempoMark[] = [];
  for (const mark of [...marks].sort((a, b) => a.start - b.start)) {
    if (out.length && Math.abs(out[out.length - 1].start - mark.start) < 1e-6) out[out.length - 1] = mark;
    else if (!out.length || out[out.length - 1].tempo !== mark.tempo) out.push(mark);
  }
  if (out.length === 0) return [{ start: 0, tempo: USUAL_TEMPO }];
  return [{ start: 0, tempo: out[0].tempo }, ...out.slice(out[0].start === 0 ? 1 : 0)].filter(
    (t, i, list) => i === 0 || t.tempo !== list[i - 1].tempo,
  );
}

const DIVISIONS = 96;
const BASS_UNDER = 55;

/**
 * A song as MusicXML 4.0, `semitones` higher than it is kept: its bars, notes tied over bar lines, words, marks and breaths, in a key
 * signature that fits.
 */
export function songToMusicXml(song: Song, semitones = 0): string {
  const low = song.notes.reduce((sum, n) => sum + n.midi + semitones, 0) / song.notes.length < BASS_UNDER;
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true, suppressEmptyNode: true });
  let tempo = 0;
  let loud: string | undefined;
  const measures = writtenBars(song, semitones).map(({ bar, meter, newMeter, upbeat, signs }, b) => {
    const inside: object[] = [];
    if (newMeter)
      inside.push({
        attributes: {
          ...(b === 0 ? { divisions: DIVISIONS, key: { fifths: fifthsOf(song.fifths, semitones) } } : {}),
          time: { beats: meter[0], 'beat-type': meter[1] },
          ...(b === 0 ? { clef: low ? { sign: 'F', line: 4 } : { sign: 'G', line: 2 } } : {}),
        },
      });
    const mark = song.tempi.find((t) => t.start >= bar.start - 1e-6 && t.start < bar.start + bar.beats - 1e-6);
    if (mark && mark.tempo !== tempo) {
      tempo = mark.tempo;
      inside.push({
        direction: {
          '@placement': 'above',
          'direction-type': { metronome: { 'beat-unit': 'quarter', 'per-minute': Math.round(tempo * 100) / 100 } },
          sound: { '@tempo': tempo },
        },
      });
    }
    for (const sign of signs) {
      if (sign.begins && sign.note?.loud && sign.note.loud !== loud) {
        loud = sign.note.loud;
        inside.push({ direction: { '@placement': 'below', 'direction-type': { dynamics: { [loud]: '' } } } });
      }
      inside.push({ note: signXml(sign) });
    }
    // One after another: an object with a list for each name would lose their order.
    const body = inside.map((part) => builder.build(part)).join('');
    return `<measure number="${escaped(bar.number)}"${upbeat ? ' implicit="yes"' : ''}>\n${body}</measure>`;
  });
  const head = builder.build({
    work: { 'work-title': song.title },
    identification: { encoding: { software: 'Wendel' } },
    'part-list': { 'score-part': { '@id': 'P1', 'part-name': 'Voice' } },
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n<score-partwise version="4.0">\n${head}<part id="P1">\n${measures.join('\n')}\n</part>\n</score-partwise>\n`;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

function signXml({ length, note, spelled, begins, ends, slidTo }: WrittenSign): object {
  const lasts = {
    type: length.type,
    ...(length.dots ? { dot: '' } : {}),
    ...(length.triplet ? { 'time-modification': { 'actual-notes': 3, 'normal-notes': 2 } } : {}),
  };
  const duration = Math.round(length.beats * DIVISIONS);
  if (!note || !spelled) return { rest: '', duration, voice: 1, ...lasts };
  const ties = [...(begins ? [] : ['stop']), ...(ends ? [] : ['start'])].map((type) => ({ '@type': type }));
  const slides = [...(slidTo ? ['stop'] : []), ...(ends && note.slide ? ['start'] : [])];
  const notations = {
    ...(ties.length ? { tied: ties } : {}),
    ...(slides.length ? { slide: slides.map((type) => ({ '@type': type, '@number': 1, '@line-type': 'solid' })) } : {}),
    ...(ends && note.breath ? { articulations: { 'breath-mark': '' } } : {}),
  };
  const words = begins ? note.words : '';
  return {
    pitch: { step: spelled.letter, ...(spelled.accidental ? { alter: spelled.accidental } : {}), octave: spelled.octave },
    duration,
    ...(ties.length ? { tie: ties } : {}),
    voice: 1,
    ...lasts,
    ...(Object.keys(notations).length ? { notations } : {}),
    ...(words ? { lyric: { syllabic: words.endsWith('-') ? 'begin' : 'single', text: words.replace(/-$/, '') } } : {}),
  };
}
