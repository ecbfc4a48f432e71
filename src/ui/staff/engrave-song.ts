import { Clef, CLEF_OF } from '../../core/exercise/render';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Song } from '../../core/song/types';
import { fifthsOf, WrittenBar, writtenBars, WrittenSign } from '../../core/song/written';
import { CLEFS, DURATIONS, SIGNS } from './engrave';

/** Major keys by their sharps (positive) or flats, as the library names signatures. */
const MAJOR = ['Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#'];
const BASS_UNDER = 55;
const CLEF_ROOM = 62;
/** Left of each line, for the number of its first bar. */
const MARGIN = 20;
const SYSTEM_HEIGHT = 118;
/** Words stand so far under the top of their line at the least: clear of the staff. */
const WORDS_LEAST = 92;
const WORDS_FONT = { family: 'Atkinson Hyperlegible Next Variable', size: 11 };

type Library = typeof import('vexflow/bravura');

/** Room for a bar: its signs, wider where words stand under them. */
const widthOf = ({ signs }: WrittenBar): number =>
  26 + signs.reduce((sum, s) => sum + Math.max(24, s.begins && s.note ? 8 * s.note.words.length + 10 : 24), 0);

/** Bars to lines no wider than `width`. */
function lines(bars: readonly WrittenBar[], width: number): WrittenBar[][] {
  const out: WrittenBar[][] = [];
  let room = 0;
  for (const bar of bars) {
    const wide = widthOf(bar);
    if (out.length === 0 || wide > room) {
      out.push([]);
      room = width - MARGIN - CLEF_ROOM - (out.length === 1 ? 40 : 20);
    }
    out[out.length - 1].push(bar);
    room -= wide;
  }
  return out;
}

/** Height over width of what a sheet of paper holds under its heading, and how far a song may be made smaller to be on one. */
const PAPER = 1.22;
const SMALLEST = 0.75;

/**
 * A whole song on staves, `semitones` higher than it is kept, in lines of `width` (pixels), with its words, in a voice's clef: one SVG for as
 * many lines as one sheet of paper holds.
 */
export async function engraveSong(song: Song, semitones: number, width: number, voice?: VoiceTypeId): Promise<SVGSVGElement[]> {
  const vexflow = await import('vexflow/bravura');
  await document.fonts.load('30px Bravura');
  const systems = lines(writtenBars(song, semitones), width);
  const low = song.notes.reduce((sum, n) => sum + n.midi + semitones, 0) / song.notes.length < BASS_UNDER;
  const clef: Clef = voice ? CLEF_OF[voice] : low ? 'bass' : 'treble';
  const signature = MAJOR[fifthsOf(song.fifths, semitones) + 6];
  const aSheet = Math.max(1, Math.floor((PAPER * width) / SMALLEST / SYSTEM_HEIGHT));
  const sheets: SVGSVGElement[] = [];
  /** Of a note that is tied on: what it is tied from. */
  let open: InstanceType<Library['StaveNote']> | null = null;
  for (let first = 0; first < systems.length; first += aSheet) {
    const { Renderer } = vexflow;
    const holder = document.createElement('div');
    const drawn: [WrittenSign, string][] = [];
    const here = systems.slice(first, first + aSheet);
    const renderer = new Renderer(holder, Renderer.Backends.SVG);
    renderer.resize(width, here.length * SYSTEM_HEIGHT + 10);
    const context = renderer.getContext();
    context.setFillStyle('currentColor').setStrokeStyle('currentColor');
    let laid = 0;
    here.forEach((bars, s) => {
      const wide = bars.reduce((sum, b) => sum + widthOf(b), 0);
      const begins = first + s === 0;
      const last = first + s === systems.length - 1;
      const head = CLEF_ROOM + (begins ? 40 : 20);
      const stretch = last ? Math.min(1.2, (width - 4 - MARGIN - head) / wide) : (width - 4 - MARGIN - head) / wide;
      let x = MARGIN;
      bars.forEach((bar, b) => {
        const own = widthOf(bar) * stretch + (b === 0 ? head : 0);
        const stave = new vexflow.Stave(x, s * SYSTEM_HEIGHT, own, { spaceAboveStaffLn: 3 });
        if (b === 0) stave.addClef(CLEFS[clef].clef, 'default', CLEFS[clef].annotation).addKeySignature(signature);
        if (bar.newMeter) stave.addTimeSignature(`${bar.meter[0]}/${bar.meter[1]}`);
        if (b === 0 && !begins) stave.setMeasure(Number(bar.bar.number) || 0);
        stave.setContext(context).draw();
        open = drawBar(vexflow, context, stave, bar, { clef, signature, open }, (sign, id) => drawn.push([sign, id]));
        x += own;
      });
      const words = [...holder.querySelectorAll('.vf-annotation text')];
      layWords(words.slice(laid), s * SYSTEM_HEIGHT);
      laid = words.length;
    });
    // What is tied on over the edge of a sheet has no bow there.
    open = null;
    const svg = holder.querySelector('svg')!;
    // Each note by its place in the song, so that it can be pressed.
    for (const [sign, id] of drawn) svg.querySelector(`#${id}`)?.setAttribute('data-note', String(song.notes.indexOf(sign.note!)));
    svg.setAttribute('viewBox', `0 0 ${width} ${here.length * SYSTEM_HEIGHT + 10}`);
    svg.setAttribute('aria-hidden', 'true');
    // Its size is the page's to say.
    svg.removeAttribute('style');
    svg.setAttribute('class', 'sheet-of-song');
    sheets.push(svg);
  }
  return sheets;
}

function drawBar(
  vexflow: Library,
  context: import('vexflow/bravura').RenderContext,
  stave: InstanceType<Library['Stave']>,
  { signs }: WrittenBar,
  { clef, signature, open }: { clef: Clef; signature: string; open: InstanceType<Library['StaveNote']> | null },
  onNote: (sign: WrittenSign, id: string) => void,
): InstanceType<Library['StaveNote']> | null {
  const { Accidental, Annotation, Beam, Dot, Formatter, Fraction, StaveNote, StaveTie, Voice } = vexflow;
  const written = signs.map((sign) => {
    const note = new StaveNote({
      keys: [keyOf(sign, clef)],
      octaveShift: CLEFS[clef].octaveShift ?? 0,
      duration: `${DURATIONS[sign.length.type]}${sign.length.dots ? 'd' : ''}${sign.note ? '' : 'r'}`,
      clef: CLEFS[clef].clef,
      autoStem: true,
    });
    if (sign.length.dots) Dot.buildAndAttach([note], { all: true });
    if (sign.begins && sign.note?.words)
      note.addModifier(
        new Annotation(sign.note.words.replace(/-$/, ' -'))
          .setFont(WORDS_FONT.family, WORDS_FONT.size)
          .setVerticalJustification(Annotation.VerticalJustify.BOTTOM),
      );
    return note;
  });
  if (written.length === 0) return open;
  const voice = new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(written);
  Accidental.applyAccidentals([voice], signature);
  const beams = Beam.generateBeams(
    written.filter((_, i) => signs[i].note),
    { groups: [new Fraction(1, 4)] },
  );
  new Formatter({ softmaxFactor: 5 }).joinVoices([voice]).formatToStave([voice], stave);
  voice.draw(context, stave);
  for (const beam of beams) beam.setContext(context).draw();
  let from = open;
  signs.forEach((sign, i) => {
    if (!sign.note) return;
    onNote(sign, written[i].getSVGElement()?.id ?? `vf-${written[i].getAttribute('id')}`);
    if (!sign.begins && from)
      new StaveTie({ firstNote: from, lastNote: written[i], firstIndexes: [0], lastIndexes: [0] }).setContext(context).draw();
    from = sign.ends ? null : written[i];
  });
  return from;
}

/** The library hangs each word under its own note; the words of a line of staves stand on one line, under its lowest. */
function layWords(words: readonly Element[], top: number) {
  const lowest = words.reduce((y, word) => Math.max(y, Number(word.getAttribute('y'))), top + WORDS_LEAST);
  for (const word of words) word.setAttribute('y', String(lowest));
}

/** Rests stand on the middle line. */
const MIDDLE: Record<Clef, string> = { bass: 'd/3', treble: 'b/4', 'treble-8': 'b/3' };

const keyOf = ({ spelled }: WrittenSign, clef: Clef): string =>
  spelled ? `${spelled.letter.toLowerCase()}${SIGNS[spelled.accidental] ?? ''}/${spelled.octave}` : MIDDLE[clef];
