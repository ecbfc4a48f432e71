// npm run -s song -- SONG.musicxml|.mxl|.mid --voice VOICE.json [--part ID] [--take FILE.wav] [--json]
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { songFromFile } from '../core/format/song-file';
import { songJson } from './song-of';
import { voiceIn } from './voice-in';

const USAGE = `Usage: npm run -s song -- SONG.musicxml|.mxl|.mid --voice VOICE.json [--part ID] [--take FILE.wav] [--json]`;

async function main() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      voice: { type: 'string' },
      part: { type: 'string' },
      take: { type: 'string' },
      json: { type: 'boolean', default: false },
    },
  });
  if (!values.voice || positionals.length !== 1) throw new Error(USAGE);
  const voice = await voiceIn(values.voice);
  const file = songFromFile(new Uint8Array(await readFile(positionals[0])), basename(positionals[0]), values.part);
  const said = songJson(file, voice, values.take ? await readFile(values.take) : null);
  process.stdout.write(values.json ? `${JSON.stringify(said)}\n` : inWords(said));
}

/** The same for people. */
function inWords(said: ReturnType<typeof songJson>): string {
  const lines = [
    `${said.title}: ${said.range.lowName} to ${said.range.highName}, mostly ${said.tessitura.lowName} to ${said.tessitura.highName}`,
    '',
    'Keys, best first:',
    ...said.transpositions.map(
      (t) => `  ${t.semitones > 0 ? '+' : ''}${t.semitones}`.padEnd(7) + `${t.key.padEnd(3)} ${t.level.padEnd(10)} ${t.because}`,
    ),
    '',
    'Phrases as written:',
    ...said.phrases.map((p) => `  ${`bars ${p.bars[0]}-${p.bars[p.bars.length - 1]}`.padEnd(12)} ${p.level.padEnd(10)} ${p.because}`),
    ...said.cautions.map((c) => `\n${c}`),
  ];
  if (said.take) {
    lines.push('', `The take: ${said.take.because}`);
    for (const b of said.take.bars.filter((b) => b.broke || b.called !== 'safe'))
      lines.push(
        `  bar ${b.bar}: called ${b.called}, ${b.broke ? `broke: ${b.because}` : !b.sung ? 'not sung' : b.told ? 'held' : 'not told, it leaps over the change'}`,
      );
  }
  return `${lines.join('\n')}\n`;
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
});
