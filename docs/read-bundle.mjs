#!/usr/bin/env node
// Reads a studio's bundle with nothing of Wendel's but its published schema: node docs/read-bundle.mjs FILE.zip
// Checks wendel.json against docs/bundle.schema.json, every file against its hash, every recording against its take's row.
import Ajv from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { promisify } from 'node:util';
import yauzl from 'yauzl';

const files = new Map();
const zip = await promisify(yauzl.open)(process.argv[2], { lazyEntries: true, autoClose: false });
const openStream = promisify(zip.openReadStream.bind(zip));
zip.on('entry', async (entry) => {
  const parts = [];
  for await (const part of await openStream(entry)) parts.push(part);
  files.set(entry.fileName, Buffer.concat(parts));
  zip.readEntry();
});
zip.readEntry();
await new Promise((resolve, reject) => zip.once('end', resolve).once('error', reject));

const fail = (why) => {
  process.stderr.write(`${why}\n`);
  process.exit(1);
};

const hashes = JSON.parse(files.get('hashes.json'));
for (const [name, bytes] of files)
  if (name !== 'hashes.json' && createHash('sha256').update(bytes).digest('hex') !== hashes[name]) fail(`${name} is not what it was.`);
for (const name of Object.keys(hashes)) if (!files.has(name)) fail(`${name} is missing.`);

const schema = JSON.parse(readFileSync(new URL('bundle.schema.json', import.meta.url)));
const ajv = new Ajv({ allErrors: true, strict: false });
addFormats(ajv);
const bundle = JSON.parse(files.get('wendel.json'));
if (!ajv.validate(schema, bundle)) fail(`wendel.json does not follow the schema: ${ajv.errorsText()}`);

let seconds = 0;
for (const take of bundle.tables.take) {
  if (take.sound_removed_at) continue;
  const wav = files.get(`takes/${take.id}.wav`);
  if (!wav || createHash('sha256').update(wav).digest('hex') !== take.sha256)
    fail(`The recording of take ${take.id} is not there as its row says.`);
  if (wav.subarray(0, 4).toString() !== 'RIFF' || wav.subarray(8, 12).toString() !== 'WAVE')
    fail(`The recording of take ${take.id} is no WAV file.`);
  seconds += take.duration_s;
}
const names = new Map(bundle.tables.singer.map((s) => [s.id, s.name]));
for (const [id, name] of names) {
  const takes = bundle.tables.take.filter((t) => t.singer_id === id);
  const lines = bundle.tables.practice.filter((p) => p.singer_id === id);
  process.stdout.write(`${name}: ${takes.length} takes, ${lines.length} lines of practice\n`);
}
process.stdout.write(`${names.size} singers, ${bundle.tables.take.length} takes, ${Math.round(seconds)} s of sound; every hash holds\n`);
