import { chromium, request } from '@playwright/test';
const base = 'http://localhost:3111', out = '/tmp/run/';
const COACH = { name: 'Marit Oake', email: 'marit@barge.example', password: 'lantern paddle rope' };
const c = await request.newContext({ baseURL: base });
const r = await c.post('/api/door/sign-in', { data: COACH }); if (!r.ok()) console.log(await (await c.post('/api/door/sign-up', { data: { ...COACH, studio: null } })).text());
await c.storageState({ path: out + 'state.json' });
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const p = await b.newPage({ baseURL: base, viewport: { width: 1280, height: 800 }, storageState: out + 'state.json' });
await p.goto('/'); await p.waitForTimeout(800);
const links = await p.$$eval('a[href^="/singers/"]', (a) => a.map((x) => [x.textContent?.trim().slice(0, 20), x.getAttribute('href')]));
const id = {}; for (const [t, h] of links) { const m = h.match(/\/singers\/([0-9a-f-]+)/); if (m) for (const n of ['Osk', 'Bram', 'Lio', 'Maren', 'Dot', 'Ysolde']) if (t.includes(n)) id[n] = m[1]; }
for (const want of process.argv.slice(2)) {
  const [name, path, act, full] = want.split('|');
  const url = path.replace(/\{(\w+)\}/g, (_, n) => id[n]);
  await p.goto(url); await p.waitForTimeout(1500);
  if (act) for (const a of act.split('&')) { await p.locator(a).first().click().catch((e) => console.log(String(e).slice(0, 200))); await p.waitForTimeout(700); }
  await p.screenshot({ path: out + name + '.png', fullPage: full === 'full' });
}
console.log(JSON.stringify(id)); await b.close();
