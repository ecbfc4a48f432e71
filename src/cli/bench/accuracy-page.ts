import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const FILE = 'docs/accuracy.md';
/** The page's later parts, each written by a command of its own; what stands before them is `hearing`. */
const HEADS = { verdicts: '## Verdicts', songs: '## Songs' };
type Part = 'hearing' | keyof typeof HEADS;
const ORDER: readonly Part[] = ['hearing', 'verdicts', 'songs'];

/** The page as it stands, in its parts. */
function page(): Record<Part, string> {
  const text = existsSync(FILE) ? readFileSync(FILE, 'utf8') : '';
  const at = (part: Part) => (part === 'hearing' ? 0 : text.indexOf(HEADS[part]));
  const there = ORDER.filter((part) => at(part) >= 0);
  const own = (part: Part) => {
    const next = there[there.indexOf(part) + 1];
    return there.includes(part) ? text.slice(at(part), next ? at(next) : undefined) : '';
  };
  return { hearing: own('hearing'), verdicts: own('verdicts'), songs: own('songs') };
}

/** Write one part of docs/accuracy.md anew; the others stay as they were. */
export function writeAccuracy(part: Part, text: string): void {
  const parts = { ...page(), [part]: part === 'hearing' ? text : `${HEADS[part]}\n\n${text}` };
  writeFileSync(
    FILE,
    `${ORDER.map((p) => parts[p].trim())
      .filter(Boolean)
      .join('\n\n')}\n`,
  );
}
