import { said, Said } from '../../core/words/said';
import { FINDING_WORDS } from '../kit/words';
import type { Speaker } from '../language/language';
import Papa from 'papaparse';
import type { VoiceMap } from '../../core/map/types';
import { ofBand } from './words-of-bands';
import { SaidError } from '../../core/words/said-error';

const PAD = 16;
const TITLE_HEIGHT = 34;

/** The colours of the paper theme: what is taken out of the page is for paper, whatever theme it was seen in. */
function paperColours(): Map<string, string> {
  for (const sheet of document.styleSheets)
    for (const rule of sheet.cssRules)
      if (rule instanceof CSSStyleRule && rule.selectorText === ':root' && rule.style.getPropertyValue('--paper'))
        return new Map([...rule.style].filter((p) => p.startsWith('--')).map((p) => [p, rule.style.getPropertyValue(p).trim()]));
  return new Map();
}

/** The map's picture as one SVG document that stands by itself: its drawings side by side under a title. */
export function pictureOf(figure: HTMLElement, title: string): { svg: string; title: string; width: number; height: number } {
  const colours = paperColours();
  const box = figure.getBoundingClientRect();
  const drawings = [...figure.querySelectorAll('svg')].filter((s) => !s.closest('button, a'));
  const width = Math.ceil(box.width) + 2 * PAD;
  let height = 0;
  const parts = drawings.map((drawing) => {
    const at = drawing.getBoundingClientRect();
    height = Math.max(height, at.bottom - box.top);
    const copy = drawing.cloneNode(true) as SVGElement;
    copy.setAttribute('x', String(PAD + at.left - box.left));
    copy.setAttribute('y', String(PAD + TITLE_HEIGHT + at.top - box.top));
    copy.setAttribute('width', String(at.width));
    copy.setAttribute('height', String(at.height));
    return new XMLSerializer().serializeToString(copy);
  });
  const total = Math.ceil(height) + TITLE_HEIGHT + 2 * PAD;
  const named = parts.join('\n').replace(/var\((--[\w-]+)\)/g, (_, name: string) => colours.get(name) ?? '#444');
  const text = document.createElement('span');
  text.textContent = title;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${total}" viewBox="0 0 ${width} ${total}" font-family="sans-serif">
<rect width="100%" height="100%" fill="${colours.get('--paper') ?? '#fff'}"/>
<text x="${PAD}" y="${PAD + 18}" font-size="20" font-weight="700" fill="${colours.get('--ink') ?? '#000'}">${text.innerHTML}</text>
${named}
</svg>`;
  return { svg, title, width, height: total };
}

/** The same as a PNG at twice the size. */
export async function pngOf(picture: ReturnType<typeof pictureOf>): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(picture.svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = 2 * picture.width;
  canvas.height = 2 * picture.height;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((b) => (b ? resolve(b) : reject(new SaidError('The picture could not be made.'))), 'image/png'),
  );
}

interface Row {
  what: string;
  note: string;
  midi: number;
  more: string;
}

const rowOf = ({ t, note }: Speaker, what: Said, midi: number, more: Said): Row => ({
  what: t(what),
  note: note(midi),
  midi: Math.round(100 * midi) / 100,
  more: t(more),
});

/** What the map concludes, one value a row. */
function conclusions(map: VoiceMap, speaker: Speaker): Row[] {
  const rows: Row[] = [];
  const add = (what: Said, midi: number, more: Said = '') => rows.push(rowOf(speaker, what, midi, more));
  if (map.extreme) {
    add(said('touched low'), map.extreme.low.midi);
    add(said('touched high'), map.extreme.high.midi);
  }
  if (map.usable) {
    add(said('usable low'), map.usable.low.midi);
    add(said('usable high'), map.usable.high.midi);
  }
  if (map.speakingMidi !== null) add(said('speaks near'), map.speakingMidi);
  for (const p of map.passaggi)
    add(
      said('change'),
      p.midi,
      said('{name}; {low} to {high}; up {up} of {upOf}, down {down} of {downOf}', {
        name: FINDING_WORDS[p.name],
        ...ofBand(p),
      }),
    );
  for (const f of map.findings) add(said('finding: {name}', { name: FINDING_WORDS[f.name] }), f.midi, f.because);
  for (const n of map.insecure) add(said('insecure note'), n.midi, n.because);
  return rows;
}

/** The map as a table, one value a row: what, note, MIDI, and what else is known of it. */
export function csvOf(map: VoiceMap, speaker: Speaker): string {
  const rows = [
    ...conclusions(map, speaker),
    ...map.blend.map((b) =>
      rowOf(
        speaker,
        said('share of head'),
        b.midi,
        said('{percent} %, give or take {by}', { percent: Math.round(100 * b.head), by: Math.round(100 * b.spread) }),
      ),
    ),
    ...map.levels.map((l) => rowOf(speaker, said('level'), l.midi, said('{db, number, ::.0} dB', { db: l.db }))),
  ];
  return Papa.unparse(rows, { columns: ['what', 'note', 'midi', 'more'] });
}

const PAGE = { width: 595, height: 842, margin: 40 };
const LINE = 14;
/** What the fonts that every PDF reader has can show. */
const LATIN = /^[\u0020-\u00ff\u2013\u2014\u2018-\u201d\u2026]*$/;

/** The map as a PDF of one A4 page: the picture, and what it concludes in words under it. */
export async function pdfOf(picture: ReturnType<typeof pictureOf>, map: VoiceMap, speaker: Speaker): Promise<Blob> {
  const [{ jsPDF }, { svg2pdf }] = await Promise.all([import('jspdf'), import('svg2pdf.js')]);
  const doc = new jsPDF({ unit: 'pt', format: 'a4' });
  const width = PAGE.width - 2 * PAGE.margin;
  const height = (width * picture.height) / picture.width;
  const box = { x: PAGE.margin, y: PAGE.margin, width, height };
  if (LATIN.test(picture.title)) await svg2pdf(new DOMParser().parseFromString(picture.svg, 'image/svg+xml').documentElement, doc, box);
  else {
    const png = new Uint8Array(await (await pngOf(picture)).arrayBuffer());
    doc.addImage(png, 'PNG', box.x, box.y, width, height);
  }
  doc.setFontSize(10).setTextColor(40, 34, 38);
  let y = PAGE.margin + height + 2 * LINE;
  for (const { what, note, more } of conclusions(map, speaker)) {
    const lines = doc.splitTextToSize(more.replace('\u2212', '-'), width - 190) as string[];
    if (y + lines.length * LINE > PAGE.height - PAGE.margin) break;
    doc.text(what, PAGE.margin, y);
    doc.text(note, PAGE.margin + 140, y);
    doc.text(lines, PAGE.margin + 190, y);
    y += LINE * Math.max(1, lines.length);
  }
  return doc.output('blob');
}
