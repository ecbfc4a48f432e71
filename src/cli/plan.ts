// npm run -s plan -- --voice VOICE.json [--json]: today, the week and the road of weeks for a described voice.
import { parseArgs } from 'node:util';
import { examplePage } from './example-page';
import { planJson } from './plan-of';
import { voiceIn } from './voice-in';

async function main() {
  const { values } = parseArgs({ options: { voice: { type: 'string' }, json: { type: 'boolean', default: false } } });
  if (!values.voice) throw new Error('Usage: npm run -s plan -- --voice VOICE.json [--json]');
  const voice = await voiceIn(values.voice);
  process.stdout.write(values.json ? `${JSON.stringify(planJson(voice))}\n` : examplePage(voice));
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
});
