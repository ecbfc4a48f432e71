import { readdirSync, readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import { SCHEMAS, schemaOf } from './printed';

const ajv = addFormats(new Ajv({ strict: false }));
const published = (name: string) => JSON.parse(readFileSync(`docs/${name}.schema.json`, 'utf8'));
const run = (command: string, ...args: string[]) =>
  JSON.parse(spawnSync(process.execPath, ['bin/core.mjs', command, ...args], { encoding: 'utf8', maxBuffer: 1e8 }).stdout);
/** Errors of a value against a published schema, by a library that knows nothing of ours. */
const errors = (name: string, value: unknown) => {
  const validate = ajv.compile(published(name));
  validate(value);
  return validate.errors ?? [];
};

test.each(Object.keys(SCHEMAS))('docs/%s.schema.json is what the command reads or prints (npm run schemas writes it anew)', (name) => {
  expect(published(name)).toEqual(JSON.parse(JSON.stringify(schemaOf(name as keyof typeof SCHEMAS))));
});

test('what is printed keeps to the published schemas, and examples to the voice’s', () => {
  expect(errors('shelf', run('shelf', '--json'))).toEqual([]);
  const examples = readdirSync('docs/examples').filter((f) => f.endsWith('.json'));
  for (const file of examples)
    expect([file, errors('voice', JSON.parse(readFileSync(`docs/examples/${file}`, 'utf8')))]).toEqual([file, []]);
  expect(errors('plan', run('plan', '--voice', `docs/examples/${examples[0]}`, '--json'))).toEqual([]);
  // A schema that takes anything would say nothing.
  expect(errors('voice', { range: 5 }).length).toBeGreaterThan(0);
  expect(errors('plan', { week: {} }).length).toBeGreaterThan(0);
});
