import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { ROUTES } from './routes';

/** Ways in that aren't asked by pages: figures for whoever watches over the machine, and what a phone's home screen reads. */
const BESIDE = ['GET /api/health', 'GET /api/metrics', 'GET /p/[token]/manifest.webmanifest'];

/** Routes as the folder has them, each with the name that its handler was made for. */
function handlers(): { way: string; made: string | null }[] {
  const root = 'src/app';
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('route.ts'))
    .flatMap((file) => {
      const text = readFileSync(join(root, file), 'utf8');
      const path = /const PATH = '([^']+)'/.exec(text)?.[1] ?? '';
      return [...text.matchAll(/export (?:async function|const) (GET|PUT|POST|PATCH|DELETE)(?: = handle\(\s*['`]([^'`]+)['`])?/g)].map(
        ([, method, made]) => ({
          way: `${method} /${file.replace(/\/route\.ts$/, '')}`,
          made: made?.replace('${PATH}', path) ?? null,
        }),
      );
    });
}

test('every route of the folder is in the table, under its own name, and none besides', () => {
  const found = handlers();
  expect(found.filter(({ way }) => !BESIDE.includes(way)).map(({ way }) => way)).toEqual(
    found.filter(({ way }) => !BESIDE.includes(way)).map(({ made }) => made),
  );
  expect(found.map(({ way }) => way).sort()).toEqual([...Object.keys(ROUTES), ...BESIDE].sort());
});

test.each(Object.entries(ROUTES))('%s refuses what is no request of its kind', (name, route) => {
  const shapes = [route].flatMap((r) => ['body' in r ? r.body : [], 'query' in r && 'file' in r ? r.query : []].flat()) as z.ZodType[];
  for (const shape of shapes)
    for (const wrong of [null, 7, 'text', [], { __proto__: null }])
      // What takes only what may be left out takes nothing at all as well.
      if (!shape.safeParse({}).success) expect([name, shape.safeParse(wrong).success]).toEqual([name, false]);
  // A reading never carries a body, and whoever may be anyone shows a key.
  if (name.startsWith('GET')) expect(route).not.toHaveProperty('body');
  if (route.who === 'anyone') expect(name).toMatch(/door|token/);
});
