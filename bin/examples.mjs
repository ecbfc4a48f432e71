#!/usr/bin/env node
// npm run examples: writes docs/examples anew, the plan for each singer of the demo's cast.
import { pathToFileURL } from 'node:url';
import { ensureProgram } from './lib/compile.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command } from './lib/project.mjs';

command(async () => {
  checkNode();
  ensurePackages();
  await import(pathToFileURL(await ensureProgram('src/cli/examples.ts', ['src/core', 'src/cli'])).href);
});
