const { createHash } = require('node:crypto');
const { readdirSync, readFileSync } = require('node:fs');
const { join } = require('node:path');
const { buildSync } = require('esbuild');

// Under Jest a global is looked up through the test's sandbox each time, which makes numeric code ten times slower: bind them once.
const GLOBALS = [
  ...['Math', 'Number', 'Infinity', 'NaN', 'Array', 'Object', 'Map', 'Set'],
  ...['Float32Array', 'Float64Array', 'Int8Array', 'Int16Array', 'Int32Array', 'Uint8Array', 'Uint16Array', 'Uint32Array'],
];
const BINDINGS = `"use strict";const ${GLOBALS.map((name) => `${name}=globalThis.${name}`).join(',')};`;

/** A test is one file with all of the project's that it stands on, so a change of any of them makes it anew. */
const sources = hashOf(join(__dirname, 'src'));

function hashOf(folder) {
  const hash = createHash('sha256').update(BINDINGS).update(readFileSync(__filename));
  for (const path of readdirSync(folder, { recursive: true }).sort())
    if (/\.tsx?$/.test(path)) hash.update(path).update(readFileSync(join(folder, path)));
  return hash.digest('hex');
}

/**
 * For the tests of what computes: bundled, libraries too, because a call into another module goes through an accessor otherwise, which
 * costs numeric code as much again. Modules can't be mocked or loaded anew here.
 */
module.exports = {
  getCacheKey: (source, path) => createHash('sha256').update(sources).update(path).update(source).digest('hex'),
  process(_source, path) {
    const { outputFiles } = buildSync({
      entryPoints: [path],
      bundle: true,
      write: false,
      platform: 'node',
      format: 'cjs',
      target: 'node20',
      external: ['esbuild'],
      sourcemap: 'inline',
      banner: { js: BINDINGS },
      logLevel: 'silent',
    });
    return { code: outputFiles[0].text };
  },
};
