#!/usr/bin/env node
// npm run bench: accuracy and speed beside registry pitch libraries, in one run.
// npm run bench -- page [lesson minutes] [10 s takes] [60 s takes] [verdicts, 0 or 1]: what a coach waits for, in the browser.
// npm run bench -- studio [singers] [takes each]: how a full studio answers.
// npm run bench -- verdicts [rounds] [first round]: what is said of every exercise sung right and wrong.
// npm run bench -- songs [takes] [first take]: how takes of songs are followed, and how often bars called risky break.
// npm run bench -- plan [presses] [sound files]: how soon a plan is there, playback starts and sound is made.
import { pathToFileURL } from 'node:url';
import { ensureProgram } from './lib/compile.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

const [what, ...words] = process.argv.slice(2);

command(async () => {
  checkNode();
  ensurePackages();
  if (what === 'verdicts' || what === 'songs') {
    process.argv.splice(2, 1);
    return void (await import(pathToFileURL(await ensureProgram(`src/cli/bench/${what}.ts`, ['src/core', 'src/cli'])).href));
  }
  const inBrowser = { page: 'e2e/bench/page.ts', studio: 'e2e/bench/studio.ts', plan: 'e2e/bench/plan.ts' }[what];
  if (!inBrowser) return void (await import(pathToFileURL(await ensureProgram('src/cli/bench/bench.ts', ['src/core', 'src/cli'])).href));
  const { ensureDebian } = await import('./lib/debian.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const { withCopies } = await import('./lib/copy.mjs');
  ensureDebian({ '/usr/bin/chromium': 'chromium' });
  const { databaseUrls } = await import('./lib/postgres.mjs');
  await withCopies(1, async ([{ data, port }]) =>
    runProgram(
      await ensureProgram(inBrowser, ['src/core', 'src/cli', 'e2e']),
      { WENDEL_PORT: String(port), WENDEL_DATA: data, WENDEL_OWNER_URL: databaseUrls(data).ownerUrl },
      words,
    ),
  );
});
