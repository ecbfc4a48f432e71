#!/usr/bin/env node
// npm run bench: accuracy and speed beside registry pitch libraries, in one run.
// npm run bench -- page [lesson minutes] [10 s takes] [60 s takes]: what a coach waits for, in the browser.
import { pathToFileURL } from 'node:url';
import { ensureProgram } from './lib/bundle.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

const [what, ...words] = process.argv.slice(2);

command(async () => {
  checkNode();
  ensurePackages();
  if (what !== 'page')
    return void (await import(pathToFileURL(await ensureProgram('src/cli/bench/bench.ts', ['src/core', 'src/cli'])).href));
  const { ensureDebian } = await import('./lib/debian.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const { withCopy } = await import('./lib/copy.mjs');
  ensureDebian({ '/usr/bin/chromium': 'chromium' });
  await withCopy(async ({ port }) =>
    runProgram(await ensureProgram('e2e/bench/page.ts', ['src/core', 'e2e']), { WENDEL_PORT: String(port) }, words),
  );
});
