import { getTableColumns } from 'drizzle-orm';
import { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { BUNDLED } from '../data/bundle';
import * as tables from '../data/schema';

const byName: Record<(typeof BUNDLED)[number], PgTable> = {
  ...tables,
  song_take: tables.songTake,
  ear_answer: tables.earAnswer,
  spoken_word: tables.spokenWord,
};

/** A column as JSON Schema has it. */
function columnSchema(column: PgColumn): object {
  const type = column.getSQLType();
  const plain =
    type === 'uuid'
      ? { type: 'string', format: 'uuid' }
      : type === 'date'
        ? { type: 'string', format: 'date' }
        : type.startsWith('timestamp')
          ? { type: 'string', description: 'ISO 8601 with offset' }
          : type === 'integer'
            ? { type: 'integer' }
            : type === 'double precision'
              ? { type: 'number' }
              : type === 'boolean'
                ? { type: 'boolean' }
                : type === 'jsonb'
                  ? { description: 'structured; see src/core' }
                  : { type: 'string' };
  return column.notNull || !('type' in plain) ? plain : { ...plain, type: [plain.type, 'null'] };
}

/** The published schema of `wendel.json` in a bundle (JSON Schema 2020-12), from the tables as they are. */
export function bundleSchema(): object {
  const table = (name: (typeof BUNDLED)[number]) => {
    const columns = Object.values(getTableColumns(byName[name])).filter((c) => c.name !== 'studio_id');
    return {
      type: 'array',
      items: {
        type: 'object',
        properties: Object.fromEntries(columns.map((c) => [c.name, columnSchema(c)])),
        required: columns.map((c) => c.name),
      },
    };
  };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'wendel.json of a Wendel bundle, version 1',
    description:
      'The bundle is a ZIP file: wendel.json; takes/<id of the take>.wav, the recordings as they came (none where sound_removed_at is set); csv/, midi/ and songs/, tables, tunes and sheets made from the same rows for other programs; hashes.json, the SHA-256 of every other file by its name.',
    type: 'object',
    required: ['wendel', 'version', 'made', 'engine', 'studio', 'tables'],
    properties: {
      wendel: { const: 'studio' },
      version: { const: 1 },
      made: { type: 'string', format: 'date-time' },
      engine: { type: 'string' },
      studio: {
        type: 'object',
        required: ['name', 'school'],
        properties: { name: { type: 'string' }, school: { type: 'string' }, keepMonths: { type: ['integer', 'null'] } },
      },
      tables: {
        type: 'object',
        required: [...BUNDLED],
        properties: Object.fromEntries(BUNDLED.map((name) => [name, table(name)])),
      },
    },
  };
}
