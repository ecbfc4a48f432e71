import { randomUUID } from 'node:crypto';
import * as fc from 'fast-check';
import { z } from 'zod';

/** What a JSON schema says of a value, as far as it is read here. */
interface Schema {
  type?: string;
  enum?: unknown[];
  const?: unknown;
  anyOf?: Schema[];
  properties?: Record<string, Schema>;
  items?: Schema;
  minItems?: number;
  minimum?: number;
  maximum?: number;
  format?: string;
}

const WORDS: Record<string, () => string> = {
  uuid: randomUUID,
  date: () => '2026-11-25',
  'date-time': () => '2026-11-25T08:00:00Z',
  email: () => `${randomUUID()}@reed.example`,
};

/** A value as a schema wants it, the plainest there is. */
function plain(of: Schema): unknown {
  if (of.const !== undefined) return of.const;
  if (of.enum) return of.enum[0];
  if (of.anyOf) return plain(of.anyOf[0]);
  switch (of.type) {
    case 'object':
      return Object.fromEntries(Object.entries(of.properties ?? {}).map(([name, value]) => [name, plain(value)]));
    case 'array':
      return Array.from({ length: of.minItems ?? 1 }, () => plain(of.items ?? {}));
    case 'number':
    case 'integer':
      return Math.max(of.minimum ?? 1, Math.min(1, of.maximum ?? 1));
    case 'boolean':
      return true;
    case 'null':
      return null;
    default:
      return WORDS[of.format ?? '']?.() ?? 'word';
  }
}

/** Every place of a schema, as the way to it. */
function places(of: Schema, way: string[] = []): string[][] {
  const inside =
    of.type === 'array'
      ? places(of.items ?? {}, [...way, '0'])
      : Object.entries(of.properties ?? {}).flatMap(([name, value]) => places(value, [...way, name]));
  return way.length ? [way, ...inside] : inside;
}

function put(value: unknown, [name, ...rest]: string[], what: unknown): unknown {
  if (name === undefined) return what;
  const within = (value ?? {}) as Record<string, unknown>;
  if (Array.isArray(within)) return within.map((v, i) => (String(i) === name ? put(v, rest, what) : v));
  return { ...within, [name]: put(within[name], rest, what) };
}

/** No place of any request takes this. */
const NOWHERE = [{ nobody: { takes: 'this' } }, 1e308, 'x'.repeat(20_000), [[[[]]]], '\0'];

/**
 * Bodies that are right but for one place: what a handler that trusts the rest would let through. What the shape still takes (a place it
 * doesn't look at) isn't drawn: such a request is a right one.
 */
export function halfRight(shape: z.ZodType): fc.Arbitrary<unknown> {
  const schema = z.toJSONSchema(shape, { io: 'input', unrepresentable: 'any' }) as Schema;
  const right = plain(schema);
  const all = places(schema);
  if (all.length === 0) return fc.constantFrom(...NOWHERE);
  return fc
    .tuple(fc.constantFrom(...all), fc.constantFrom(...NOWHERE))
    .map(([way, what]) => put(right, way, what))
    .filter((body) => !shape.safeParse(body).success);
}
