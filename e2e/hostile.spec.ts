import { request } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as fc from 'fast-check';
import { Client } from 'pg';
import type { z } from 'zod';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { ROUTES } from '../src/contract/routes';
import { BASE_URL, COPY, expect, signInOnce, test } from './browser';
import { halfRight } from './half-right';

/** Requests in all (WENDEL_HOSTILE: more of them), and at once. */
const REQUESTS = Number(process.env.WENDEL_HOSTILE) || 2500;
const AT_ONCE = 8;

/** A redirect says the address again, and the client takes headers of 16 KB. */
const LONGEST_QUERY = 500;

/** What ends the session or takes minutes is left to its own tests, and a stream never ends. */
const ELSEWHERE = /sign-out|account\/password|GET \/api\/(bundle|changes)/;

interface Asked {
  method: string;
  path: string;
  body?: z.ZodType;
}
const routes: Asked[] = Object.entries(ROUTES)
  .filter(([name]) => !ELSEWHERE.test(name))
  .map(([name, route]) => ({ method: name.split(' ')[0], path: name.split(' ')[1], ...('body' in route ? { body: route.body } : {}) }));

/** Every name a shape knows, so that bodies are half right. */
const NAMES = [
  ...new Set(
    readdirSync('src/core/format')
      .filter((file) => file.endsWith('.ts'))
      .flatMap((file) => [...readFileSync(join('src/core/format', file), 'utf8').matchAll(/^\s+(\w+): z\b/gm)].map(([, name]) => name)),
  ),
  'entries',
  'terms',
  'edits',
  'course',
  'archived',
  'items',
  '__proto__',
  'constructor',
];
const text = fc.oneof(
  fc.constantFrom(
    '',
    '\0',
    'a\0b',
    '\ud800',
    '\udc00x',
    '../../etc/passwd',
    "'; drop table take; --",
    '%E0%A4%A',
    '{{7*7}}',
    'x'.repeat(5000),
  ),
  fc.constantFrom('0000-01-01', '9999-99-99', '-infinity', 'NaN', '2026-11-25T08:00:00Z', randomUUID(), 'siren', 'owner', 'chest'),
  fc.string({ unit: 'binary', maxLength: 40 }),
);
const number = fc.oneof(fc.constantFrom(0, -1, 1e308, -1e308, 2 ** 53, 1e-320, 4294967296), fc.double(), fc.integer());
const value = fc.letrec((tie) => ({
  any: fc.oneof(
    { maxDepth: 3 },
    text,
    number,
    fc.constantFrom(null, true, false),
    fc.array(tie('any'), { maxLength: 4 }),
    fc.dictionary(fc.constantFrom(...NAMES), tie('any'), { maxKeys: 8 }),
  ),
})).any;
const part = fc.oneof({ weight: 2, arbitrary: fc.constant(null) }, text, fc.constantFrom('x', '..', '%00', '%2e%2e', '0', randomUUID()));
const ofRoute = (route: Asked) =>
  fc.record({
    route: fc.constant(route),
    parts: fc.array(part, { minLength: 3, maxLength: 3 }),
    query: fc.dictionary(
      fc.constantFrom('singerId', 'task', 'vowel', 'source', 'sha256', 'recordedAt', 'asked', 'lessonId', 'until', 'dry'),
      text,
      { maxKeys: 5 },
    ),
    // Half of the bodies are right but for one place.
    body: route.body ? fc.oneof(value, halfRight(route.body)) : value,
    kind: fc.constantFrom('json', 'json', 'json', 'no json', 'wav', 'zip'),
  });
const hostile = fc.oneof(...routes.map(ofRoute));

/** Memory of the web process, MB. */
function webMemory(): number {
  const { parts } = JSON.parse(readFileSync(join(COPY.data, 'running.json'), 'utf8')) as { parts: number[] };
  const pid = parts.find((p) => /next/.test(readFileSync(`/proc/${p}/cmdline`, 'utf8')))!;
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;
}

test(`${REQUESTS} hostile requests over all routes: no fault, nothing stored, memory flat`, async () => {
  test.setTimeout(600_000);
  await signInOnce(BASE_URL);
  const db = new Client({ connectionString: databaseUrls(COPY.data).ownerUrl });
  await db.connect();
  const stored = async () =>
    (
      await db.query(
        'select (select count(*) from singer)::int as singers, (select count(*) from take)::int as takes, (select count(*) from practice)::int as lines, (select count(*) from lesson)::int as lessons, (select count(*) from mark)::int as marks, (select count(*) from pin)::int as pins, (select count(*) from assignment)::int as weeks, (select count(*) from exercise)::int as exercises, (select md5(string_agg(s::text, $1)) from (select name, school, keep_months from studio order by id) s) as studios',
        [' '],
      )
    ).rows[0];
  // From a network of its own: the door closes to it, and to nobody else.
  const extraHTTPHeaders = { 'x-forwarded-for': '10.9.9.9' };
  const coach = await request.newContext({ baseURL: BASE_URL, storageState: join(COPY.data, 'signed-in.json'), extraHTTPHeaders });
  const made = await coach.post('/api/singers', { data: { name: 'Nobody’s Target', voiceType: 'bass' } });
  const known = ((await made.json()) as { id: string }).id;
  const before = await stored();
  const faults: string[] = [];
  const answers = new Map<number, number>();
  let memory = 0;
  const drawn = fc.sample(hostile, { numRuns: REQUESTS, seed: 14 });
  let next = 0;
  const one = async () => {
    for (let n = next++; n < drawn.length; n = next++) {
      const { route, parts, query, body, kind } = drawn[n];
      let k = 0;
      // Ids that are none, and one that is one: a singer's.
      const path = route.path.replace(/\[[^\]]+\]/g, () => encodeURIComponent((parts[k++] ?? known).toWellFormed()));
      const search = new URLSearchParams(
        Object.entries(query).map(([name, words]) => [name, words.toWellFormed().slice(0, LONGEST_QUERY)]),
      );
      const data = {
        json: () => JSON.stringify(body),
        'no json': () => '{"a":',
        wav: () => Buffer.from(`RIFF\0\0\0\0WAVEfmt ${JSON.stringify(body)}`),
        zip: () => Buffer.from(`PK${JSON.stringify(body)}`),
      }[kind]();
      const answer = await coach.fetch(`${path}?${search}`, {
        method: route.method,
        ...(route.method === 'GET' ? {} : { data, headers: { 'content-type': kind.includes('json') ? 'application/json' : 'audio/wav' } }),
        timeout: 60_000,
        maxRedirects: 0,
      });
      answers.set(answer.status(), (answers.get(answer.status()) ?? 0) + 1);
      // Whole and away are words of health, not faults.
      if (answer.status() >= 500 && route.path !== '/api/health')
        faults.push(`${answer.status()} ${route.method} ${path}?${search} ${String(data).slice(0, 300)}`);
      if (n === Math.floor(REQUESTS / 4)) memory = webMemory();
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  test.info().annotations.push({ type: 'answers', description: JSON.stringify([...answers].sort()) });
  expect(faults.slice(0, 10)).toEqual([]);
  expect(await stored()).toEqual(before);
  // What is collected later is no leak; hundreds of MB in thousands of requests would be one.
  expect(webMemory() - memory).toBeLessThan(200);
  await coach.delete(`/api/singers/${known}`, { data: { name: 'Nobody’s Target' } });
  await coach.dispose();
  await db.end();
});
