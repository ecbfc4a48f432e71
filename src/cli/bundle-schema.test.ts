import { readFileSync } from 'node:fs';
import { bundleSchema } from './bundle-schema';

test('the published schema is that of the tables (npm run bundle -- schema writes it anew)', () => {
  expect(JSON.parse(readFileSync('docs/bundle.schema.json', 'utf8'))).toEqual(JSON.parse(JSON.stringify(bundleSchema())));
});
