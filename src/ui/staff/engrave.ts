import { NoteType, writtenLengths } from '../../core/exercise/lengths';
import { Clef, notate } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import { movableDo } from '../../core/exercise/movable-do';
import type { Lean } from '../../core/exercise/vowel-lean';
import type { VoiceTypeId } from '../../core/plan/voice-types';

export const DURATIONS: Record<NoteType, string> = {
  breve: '1/2',
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
};
export const SIGNS: Record<number, string> = { [-2]: 'bb', [-1]: 'b', 0: '', 1: '#', 2: '##' };
/** How the library draws them. */
export const CLEFS: Record<Clef, { clef: string; annotation?: string; octaveShift?: number }> = {
  treble: { clef: 'treble' },
  'treble-8': { clef: 'treble', annotation: '8vb', octaveShift: -1 },
  bass: { clef: 'bass' },
};

export interface ToEngrave {
  exercise: Pick<Exercise, 'steps'>;
  tonic: number;
  /** Whose clef it is written in; none: by where it lies. */
  voice?: VoiceTypeId;
  /** The note marked. */
  selected?: number | null;
  /** Where the vowel leans, written over the notes. */
  leans?: readonly Lean[];
  /** Whether each note's name in movable do stands under it. */
  movableDo?: boolean;
}

const WORD_FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';
const WORD_SIZE = 13;
/** Room over or under the notes for what is written there. */
const WORD_ROOM = 18;
/** Under the lowest of the notes to the foot of the words, and how wide a note's head is, in the library's units. */
const WORD_LINE = 11;
const HEAD_WIDTH = 12;

type Library = typeof import('vexflow/bravura');

async function library(): Promise<Library> {
  const vexflow = await import('vexflow/bravura');
  await document.fonts.load('30px Bravura');
  return vexflow;
}

/** Draw on a context of the notation library; where the notes stand and how much room it took, in its units. */
function draw(
  vexflow: Library,
  context: import('vexflow/bravura').RenderContext,
  { exercise, tonic, voice, selected = null, leans = [], movableDo: syllables = false }: ToEngrave,
  width: number,
) {
  const {
    Accidental,
    Annotation,
    AnnotationVerticalJustify,
    Beam,
    Dot,
    Formatter,
    Fraction,
    Stave,
    StaveLine,
    StaveNote,
    StaveTie,
    Tuplet,
    Voice,
  } = vexflow;
  const { clef, notes } = notate(exercise, tonic, voice);
  const how = CLEFS[clef];
  // A note may be written as several tied ones.
  const parts = notes.map((n) =>
    writtenLengths(n.beats).map((length) => {
      const note = new StaveNote({
        keys: [`${n.letter.toLowerCase()}${SIGNS[n.accidental]}/${n.octave}`],
        duration: `${DURATIONS[length.type]}${length.dots ? 'd' : ''}`,
        clef: how.clef,
        octaveShift: how.octaveShift ?? 0,
        autoStem: true,
      });
      if (length.dots) Dot.buildAndAttach([note], { all: true });
      return { note, length };
    }),
  );
  for (const { step, leans: leaning, vowel } of leans)
    parts[step][0].note.addModifier(
      new Annotation(leaning ? `(${vowel})` : vowel).setVerticalJustification(AnnotationVerticalJustify.TOP).setFont(WORD_FONT, WORD_SIZE),
    );
  parts.forEach((of, step) => {
    if (step === selected) for (const { note } of of) note.setStyle({ fillStyle: 'var(--accent)', strokeStyle: 'var(--accent)' });
  });
  const all = parts.flat();
  const written = all.map((p) => p.note);
  const stave = new Stave(2, 0, width - 6, { spaceAboveStaffLn: 3 }).addClef(how.clef, 'default', how.annotation);
  const tuplets = triplets(all.map((p) => p.length.triplet)).map(
    ([from, to]) => new Tuplet(written.slice(from, to), { notesOccupied: 2, numNotes: 3 }),
  );
  const staffVoice = new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(written);
  Accidental.applyAccidentals([staffVoice], 'C');
  const beams = Beam.generateBeams(written, { groups: [new Fraction(1, 4)] });
  new Formatter({ softmaxFactor: 3 }).joinVoices([staffVoice]).formatToStave([staffVoice], stave);
  stave.setContext(context).draw();
  staffVoice.draw(context, stave);
  for (const thing of [...beams, ...tuplets]) thing.setContext(context).draw();
  parts.forEach((of, i) => {
    for (let k = 1; k < of.length; k++)
      new StaveTie({ firstNote: of[k - 1].note, lastNote: of[k].note, firstIndexes: [0], lastIndexes: [0] }).setContext(context).draw();
    if (notes[i].slide && parts[i + 1])
      new StaveLine({ firstNote: of[of.length - 1].note, lastNote: parts[i + 1][0].note, firstIndexes: [0], lastIndexes: [0] })
        .setContext(context)
        .draw();
  });
  const box = staffVoice.getBoundingBox();
  // The 8 of a clef that sounds an octave lower hangs under it.
  const lowest = Math.max(stave.getYForLine(4) + (how.annotation ? 36 : 16), box ? box.getY() + box.getH() + 6 : 90);
  // On one line, whatever stands over it.
  if (syllables) {
    context.setFont(WORD_FONT, WORD_SIZE);
    parts.forEach(([{ note }], step) => {
      const syllable = movableDo(exercise.steps[step]);
      context.fillText(syllable, note.getAbsoluteX() + (HEAD_WIDTH - context.measureText(syllable).width) / 2, lowest + WORD_LINE);
    });
  }
  return {
    top: Math.min(stave.getYForLine(0) - 16, box ? box.getY() - 6 : 20) - (leans.length ? WORD_ROOM : 0),
    bottom: lowest + (syllables ? WORD_ROOM : 0),
    places: parts.map((of) => of[0].note.getAbsoluteX()),
  };
}

/** Room for the notes of a pattern, in the library's units. */
function widthOf({ exercise }: ToEngrave): number {
  const count = exercise.steps.reduce((n, s) => n + writtenLengths(s.beats).length, 0);
  // A slide's line needs room, also past the sign of the note it leads to.
  const slides = exercise.steps.filter((s) => s.slide).length;
  return 100 + count * (count > 12 ? 28 : 38) + slides * 30;
}

const SCALE = 0.8;

/** A pattern on a staff as SVG, in the colour of the text around it; `places` are the notes' x in its view box. */
export async function engrave(what: ToEngrave): Promise<{ svg: SVGSVGElement; places: number[] }> {
  const vexflow = await library();
  const holder = document.createElement('div');
  const context = new vexflow.Renderer(holder, vexflow.Renderer.Backends.SVG).getContext();
  context.setFillStyle('currentColor').setStrokeStyle('currentColor');
  const width = widthOf(what);
  const { top, bottom, places } = draw(vexflow, context, what, width);
  const svg = holder.querySelector('svg')!;
  svg.setAttribute('viewBox', `0 ${top} ${width} ${bottom - top}`);
  svg.setAttribute('width', String(width * SCALE));
  svg.setAttribute('height', String((bottom - top) * SCALE));
  svg.setAttribute('aria-hidden', 'true');
  svg.style.maxWidth = '100%';
  return { svg, places };
}

/** The same as a picture for paper: its own pixels a unit, cropped to the staff. */
export async function engraveForPaper(what: ToEngrave, pixels = 4): Promise<HTMLCanvasElement> {
  const vexflow = await library();
  const width = widthOf(what);
  const sheet = document.createElement('canvas');
  const renderer = new vexflow.Renderer(sheet, vexflow.Renderer.Backends.CANVAS);
  renderer.resize(width * pixels, 240 * pixels);
  const context = renderer.getContext();
  // The library has scaled for the screen's own density; paper has ours.
  (sheet.getContext('2d') as CanvasRenderingContext2D).setTransform(pixels, 0, 0, pixels, 0, 60 * pixels);
  const { top, bottom } = draw(vexflow, context, what, width);
  const cut = document.createElement('canvas');
  cut.width = width * pixels;
  cut.height = Math.ceil((bottom - top) * pixels);
  cut.getContext('2d')!.drawImage(sheet, 0, -(top + 60) * pixels);
  return cut;
}

/** Runs of three triplet notes, as [from, to). */
function triplets(of: boolean[]): [number, number][] {
  const out: [number, number][] = [];
  for (let i = 0; i + 2 < of.length;) {
    if (of[i] && of[i + 1] && of[i + 2]) {
      out.push([i, i + 3]);
      i += 3;
    } else i++;
  }
  return out;
}
