import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const FILE = 'docs/accuracy.md';
/** How each part of the page begins, in their order; each is written by a command of its own. */
const HEADS = {
  hearing: '# Accuracy and speed',
  singers: '## Singers',
  lessons: '## First listenings',
  changes: '## Two vowels, and two changes',
  verdicts: '## Verdicts',
  songs: '## Songs',
};
type Part = keyof typeof HEADS;
const ORDER = Object.keys(HEADS) as Part[];

/** The page as it stands, in its parts. */
function page(): Record<Part, string> {
  const text = existsSync(FILE) ? readFileSync(FILE, 'utf8') : '';
  const at = (part: Part) => `\n${text}`.indexOf(`\n${HEADS[part]}\n`);
  const there = ORDER.filter((part) => at(part) >= 0);
  const own = (part: Part) => {
    const next = there[there.indexOf(part) + 1];
    return there.includes(part) ? text.slice(at(part), next && at(next)) : '';
  };
  return Object.fromEntries(ORDER.map((part) => [part, own(part)])) as Record<Part, string>;
}

/** Write one part of docs/accuracy.md anew; the others stay as they were. */
export function writeAccuracy(part: Part, text: string): void {
  const parts = { ...page(), [part]: `${HEADS[part]}\n\n${text}` };
  writeFileSync(
    FILE,
    `${ORDER.map((p) => parts[p].trim())
      .filter(Boolean)
      .join('\n\n')}\n`,
  );
}
