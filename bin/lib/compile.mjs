// Compiles the command line, the worker and the browser's audio worklets with esbuild when their sources changed.
import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './project.mjs';

/** Newest change below the given files and folders, milliseconds. */
export function newestChange(paths) {
  let newest = 0;
  const visit = (path) => {
    const info = statSync(path);
    if (info.isDirectory()) for (const name of readdirSync(path)) visit(join(path, name));
    else if (!path.endsWith('.test.ts')) newest = Math.max(newest, info.mtimeMs);
  };
  for (const path of paths) if (existsSync(join(root, path))) visit(join(root, path));
  return newest;
}

const changedAt = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);

async function bundle(entry, outfile, options) {
  const { build } = await import('esbuild');
  await build({ entryPoints: [join(root, entry)], outfile, bundle: true, logLevel: 'error', absWorkingDir: root, ...options });
}

/** Compile a Node program from src/ to dist/ when anything it may import changed; returns the compiled file. */
export async function ensureProgram(entry, sources) {
  const outfile = join(root, 'dist', `${entry.split('/').pop().replace('.ts', '')}.mjs`);
  if (changedAt(outfile) < newestChange([...sources, 'package-lock.json']))
    await bundle(entry, outfile, { platform: 'node', format: 'esm', target: 'node20', packages: 'external' });
  return outfile;
}

/** Compile the AudioWorklet to public/worklets. */
export async function ensureWorklets() {
  const outfile = join(root, 'public/worklets/capture.js');
  mkdirSync(join(root, 'public/worklets'), { recursive: true });
  if (changedAt(outfile) < newestChange(['src/audio/capture.worklet.ts']))
    await bundle('src/audio/capture.worklet.ts', outfile, { format: 'esm', target: 'es2022', minify: true });
}
