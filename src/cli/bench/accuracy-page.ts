import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const FILE = 'docs/accuracy.md';
/** The page's second part, written by a command of its own. */
const VERDICTS = '## Verdicts';

const page = (): [first: string, verdicts: string] => {
  const text = existsSync(FILE) ? readFileSync(FILE, 'utf8') : '';
  const at = text.indexOf(VERDICTS);
  return at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at)];
};

/** Write one part of docs/accuracy.md anew; the other stays as it was. */
export function writeAccuracy(part: 'hearing' | 'verdicts', text: string): void {
  const [hearing, verdicts] = page();
  const parts = part === 'hearing' ? [text, verdicts] : [hearing, `${VERDICTS}\n\n${text}`];
  writeFileSync(
    FILE,
    `${parts
      .map((p) => p.trim())
      .filter(Boolean)
      .join('\n\n')}\n`,
  );
}
