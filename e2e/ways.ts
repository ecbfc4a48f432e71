import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Every way into the application, out of the folder of routes: "GET /api/takes/[takeId]"; pages are GETs of their paths. */
export function allWays(): string[] {
  const root = 'src/app';
  return readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((file) => /(^|\/)(route|page)\.tsx?$/.test(file))
    .flatMap((file) => {
      const path = `/${file.replace(/(^|\/)(route|page)\.tsx?$/, '').replace(/\([^)]+\)\/?/g, '')}`.replace(/(.)\/$/, '$1');
      if (/page\.tsx$/.test(file)) return [`GET ${path}`];
      const methods = [
        ...readFileSync(join(root, file), 'utf8').matchAll(/export (?:async )?(?:function|const) (GET|PUT|POST|PATCH|DELETE)\b/g),
      ];
      return methods.map(([, method]) => `${method} ${path}`);
    })
    .sort();
}
