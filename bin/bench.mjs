#!/usr/bin/env node
// npm run bench: accuracy and speed beside two registry pitch libraries, in one run.
import { pathToFileURL } from 'node:url';
import { ensureProgram } from './lib/bundle.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  await import(pathToFileURL(await ensureProgram('src/cli/bench/bench.ts', ['src/core', 'src/cli'])).href);
});
