import Papa from 'papaparse';
import type { VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';

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
export function pictureOf(figure: HTMLElement, title: string): { svg: string; width: number; height: number } {
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
  return { svg, width, height: total };
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
    canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('The picture could not be made.'))), 'image/png'),
  );
}

/** The map as a table, one value a row: what, note, MIDI, and what else is known of it. */
export function csvOf(map: VoiceMap): string {
  const rows: Record<string, string | number>[] = [];
  const add = (what: string, midi: number, more = '') =>
    rows.push({ what, note: noteName(midi), midi: Math.round(100 * midi) / 100, more });
  const limits = (name: string, l: VoiceMap['usable']) => {
    if (!l) return;
    add(`${name} low`, l.low.midi);
    add(`${name} high`, l.high.midi);
  };
  limits('touched', map.extreme);
  limits('usable', map.usable);
  if (map.speakingMidi !== null) add('speaks near', map.speakingMidi);
  for (const p of map.passaggi)
    add(
      'change',
      p.midi,
      `${p.name}; ${noteName(p.lowMidi)} to ${noteName(p.highMidi)}; up ${p.up.found} of ${p.up.of}, down ${p.down.found} of ${p.down.of}`,
    );
  for (const f of map.findings) add(`finding: ${f.name}`, f.midi, f.because);
  for (const n of map.insecure) add('insecure note', n.midi, n.because);
  for (const b of map.blend) add('share of head', b.midi, `${Math.round(100 * b.head)} %, give or take ${Math.round(100 * b.spread)}`);
  for (const l of map.levels) add('level', l.midi, `${l.db.toFixed(1)} dB`);
  return Papa.unparse(rows, { columns: ['what', 'note', 'midi', 'more'] });
}

/** Hand a file to the browser. */
export function download(name: string, content: Blob | string, type = 'text/plain'): void {
  const url = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
