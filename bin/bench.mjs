#!/usr/bin/env node
// npm run bench: all that docs/accuracy.md says of hearing; or one part of it:
// npm run bench -- hearing: accuracy and speed beside registry pitch libraries, in one run.
// npm run bench -- singers: what is found of singers of unrelated makers, in rooms.
// npm run bench -- lessons: what is found in whole first listenings.
// npm run bench -- changes: what is found on two vowels, and of two changes in one voice.
// npm run bench -- page [lesson minutes] [10 s takes] [60 s takes] [verdicts, 0 or 1]: what a coach waits for, in the browser.
// npm run bench -- studio [singers] [takes each]: how a full studio answers.
// npm run bench -- readers [readers] [minutes]: how pages answer many who look at once.
// npm run bench -- again [takes]: listening to many takes anew, by one analysis process and by two.
// npm run bench -- verdicts [rounds] [first round]: what is said of every exercise sung right and wrong.
// npm run bench -- songs [takes] [first take]: how takes of songs are followed, and how often bars called risky break.
// npm run bench -- plan [presses] [sound files]: how soon a plan is there, playback starts and sound is made.
import { pathToFileURL } from 'node:url';
import { ensureProgram } from './lib/compile.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

const [what, ...words] = process.argv.slice(2);
/** Parts that run on a copy of the application. */
const ON_COPY = ['page', 'studio', 'plan', 'readers', 'again'];

command(async () => {
  checkNode();
  ensurePackages();
  if (what === 'verdicts' || what === 'songs') {
    process.argv.splice(2, 1);
    return void (await import(pathToFileURL(await ensureProgram(`src/cli/bench/${what}.ts`, ['src/core', 'src/cli'])).href));
  }
  const onCopy = ON_COPY.includes(what) && `e2e/bench/${what}.ts`;
  if (!onCopy) return void (await import(pathToFileURL(await ensureProgram('src/cli/bench/bench.ts', ['src/core', 'src/cli'])).href));
  const { ensureDebian } = await import('./lib/debian.mjs');
  const { runProgram } = await import('./lib/run.mjs');
  const { withCopies } = await import('./lib/copy.mjs');
  ensureDebian({ '/usr/bin/chromium': 'chromium' });
  const { databaseUrls } = await import('./lib/postgres.mjs');
  await withCopies(1, async ([{ data, port }]) => {
    const { ownerUrl, appUrl } = databaseUrls(data);
    const env = { WENDEL_PORT: String(port), WENDEL_DATA: data, WENDEL_OWNER_URL: ownerUrl, WENDEL_APP_URL: appUrl };
    runProgram(await ensureProgram(onCopy, ['src/core', 'src/cli', 'src/data', 'e2e']), env, words);
  });
});
