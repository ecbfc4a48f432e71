'use client';
import { useEffect, useRef } from 'react';
import { notate } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import { noteName } from '../../core/music/pitch';

const DURATIONS: Record<number, string> = { 0.5: '8', 1: 'q', 1.5: 'qd', 2: 'h', 3: 'hd', 4: 'w' };
const SIGNS: Record<number, string> = { [-2]: 'bb', [-1]: 'b', 0: '', 1: '#', 2: '##' };
const SCALE = 0.8;

/** An exercise in one key on a staff, engraved by the notation library in its own font. */
export function Staff({ exercise, tonic }: { exercise: Pick<Exercise, 'name' | 'steps'>; tonic: number }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let current = true;
    void engrave(exercise, tonic).then((svg) => {
      if (current && svg) box.current?.replaceChildren(svg);
    });
    return () => {
      current = false;
    };
  }, [exercise, tonic]);
  return (
    <div
      ref={box}
      role="img"
      aria-label={`${exercise.name} from ${noteName(tonic)}`}
      data-testid="staff"
      className="min-h-14 text-ink print:min-h-0"
    />
  );
}

async function engrave(exercise: Pick<Exercise, 'steps'>, tonic: number): Promise<Element | null> {
  const { Accidental, Beam, Dot, Formatter, Renderer, Stave, StaveLine, StaveNote, Voice } = await import('vexflow/bravura');
  await document.fonts.load('30px Bravura');
  const { clef, notes } = notate(exercise, tonic);
  const width = 90 + notes.length * (notes.length > 12 ? 26 : 36);
  const holder = document.createElement('div');
  const renderer = new Renderer(holder, Renderer.Backends.SVG);
  const context = renderer.getContext();
  context.setFillStyle('currentColor').setStrokeStyle('currentColor');
  const stave = new Stave(2, 0, width - 6, { spaceAboveStaffLn: 3 }).addClef(clef);
  stave.setStyle({ fillStyle: 'currentColor', strokeStyle: 'currentColor' });
  const written = notes.map((n) => {
    const duration = DURATIONS[n.beats] ?? 'q';
    const note = new StaveNote({ keys: [`${n.letter.toLowerCase()}${SIGNS[n.accidental]}/${n.octave}`], duration, clef, autoStem: true });
    if (duration.endsWith('d')) Dot.buildAndAttach([note], { all: true });
    return note;
  });
  const voice = new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT).addTickables(written);
  Accidental.applyAccidentals([voice], 'C');
  const beams = Beam.generateBeams(
    written.filter((_, i) => notes[i].beats === 0.5),
    { groups: undefined },
  );
  new Formatter().joinVoices([voice]).formatToStave([voice], stave);
  stave.setContext(context).draw();
  voice.draw(context, stave);
  for (const beam of beams) beam.setContext(context).draw();
  notes.forEach((n, i) => {
    if (!n.slide) return;
    new StaveLine({ firstNote: written[i], lastNote: written[i + 1], firstIndexes: [0], lastIndexes: [0] }).setContext(context).draw();
  });
  const box = voice.getBoundingBox();
  const top = Math.min(stave.getYForLine(0) - 12, box ? box.getY() - 4 : 20);
  const bottom = Math.max(stave.getYForLine(4) + 12, box ? box.getY() + box.getH() + 4 : 90);
  const svg = holder.querySelector('svg')!;
  svg.setAttribute('viewBox', `0 ${top} ${width} ${bottom - top}`);
  svg.setAttribute('width', String(width * SCALE));
  svg.setAttribute('height', String((bottom - top) * SCALE));
  svg.setAttribute('aria-hidden', 'true');
  svg.style.maxWidth = '100%';
  return svg;
}
