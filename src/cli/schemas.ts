// npm run schemas: writes docs/*.schema.json anew, what the commands read and print.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { SCHEMAS, schemaOf } from './printed';

for (const name of Object.keys(SCHEMAS) as (keyof typeof SCHEMAS)[])
  writeFileSync(join(process.cwd(), 'docs', `${name}.schema.json`), `${JSON.stringify(schemaOf(name), null, 2)}\n`);
