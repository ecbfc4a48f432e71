import { noteName } from '../music/pitch';
import { Typed, upbeatOf } from './typed';
import { barAt, Song } from './types';

/** A length as it is typed: whole and dotted ones as numbers, others as a fraction of a crotchet. */
function lengthText(beats: number): string {
  if (Math.abs(beats - 1) < 1e-6) return '';
  for (const parts of [1, 2, 4, 8])
    if (Math.abs(beats * parts - Math.round(beats * parts)) < 1e-6) return `:${Math.round(beats * parts) / parts}`;
  for (const parts of [3, 6, 12, 24, 96])
    if (Math.abs(beats * parts - Math.round(beats * parts)) < 1e-4) return `:${Math.round(beats * parts)}/${parts}`;
  return `:${Math.round(beats * 1000) / 1000}`;
}

/** A song as it would be typed, a line of four bars each; `typedSong` reads it back. Bars of other lengths become even ones. */
export function typedText(song: Song): Typed {
  const flats = song.fifths < 0;
  const words: string[] = [];
  let melody = '';
  let at = 0;
  let bar = 0;
  let loud: string | undefined;
  for (const n of song.notes) {
    const now = barAt(song, n.start);
    if (n.start > at + 1e-6) melody += `r${lengthText(n.start - at)} `;
    if (now > bar) {
      melody = `${melody.trimEnd()} |${now % 4 === 0 ? '\n' : ' '}`;
      bar = now;
    }
    if (n.loud && n.loud !== loud) {
      loud = n.loud;
      melody += `${loud} `;
    }
    melody += `${noteName(n.midi, flats)}${lengthText(n.beats)}${n.slide ? '~' : ''}${n.breath ? ',' : ''} `;
    words.push(n.words || '_');
    at = n.start + n.beats;
  }
  return {
    title: song.title,
    style: song.style,
    language: song.language,
    tempo: Math.round(song.tempi[0].tempo * 100) / 100,
    meter: song.meter,
    fifths: song.fifths,
    upbeat: upbeatOf(song),
    melody: melody.trim(),
    words: words.every((w) => w === '_') ? '' : words.join(' ').replace(/- /g, '-'),
  };
}
