#!/usr/bin/env node
// npm run kernel: compiles kernel/kernel.ts (AssemblyScript) into src/core/signal/kernel-bytes.ts.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { compileKernel } from './lib/kernel.mjs';
import { command, root } from './lib/project.mjs';

command(async () => writeFileSync(join(root, 'src/core/signal/kernel-bytes.ts'), await compileKernel()));
