/** Imports point one way (docs/architecture.md): app -> ui, server; ui -> audio, sync; server, worker, cli -> studio -> data; everything -> core; core -> itself. */
const ROOMS = [
  'engine',
  'words',
  'music',
  'signal',
  'voice',
  'take',
  'map',
  'straw',
  'exercise',
  'judge',
  'plan',
  'practice',
  'song',
  'lesson',
  'sim',
  'ears',
  'format',
];
/** Inside core: each room may use those before it, `plan/voice-types` (a table) being open to all after `music`. */
const core = ROOMS.map((room, i) => ({
  name: `core-${room}-looks-down`,
  severity: 'error',
  from: { path: `^src/core/${room}(/|\\.ts)`, pathNot: '\\.test\\.ts$' },
  to: {
    path: '^src/core/',
    pathNot: [
      ...ROOMS.slice(0, i + 1).map((r) => `^src/core/${r}(/|\\.ts)`),
      ...(i > 0 ? ['^src/core/plan/voice-types\\.ts'] : []),
      ...(room === 'sim' || room === 'format' ? ['^src/core/voice/types\\.ts'] : []),
    ],
  },
}));

const only = (room, allowed) => ({
  name: `${room}-imports`,
  severity: 'error',
  from: { path: `^src/${room}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: [`^src/${room}/`, ...allowed.map((r) => `^src/${r}(/|$)`)] },
});

module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'The computation runs anywhere: no React, Next, Node, DOM or database in it.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: ['(\\.test|\\/drawn-[a-z-]+)\\.ts$', '^src/core/format/'] },
      to: { pathNot: '^src/core/' },
    },
    {
      name: 'formats-use-libraries',
      comment: 'Adapters over well-kept libraries that run anywhere; nothing of Node or of ours outside core.',
      severity: 'error',
      from: { path: '^src/core/format/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/core/', 'node_modules/(@tonejs/midi|fast-xml-parser|fflate|ics|intl-messageformat|zod)/'] },
    },
    ...core,
    only('words', ['core']),
    only('contract', ['core']),
    only('data', ['core', 'contract']),
    only('studio', ['core', 'contract', 'data']),
    only('server', ['core', 'contract', 'data', 'studio', 'words']),
    only('worker', ['core', 'data', 'studio']),
    only('sync', ['core', 'contract']),
    only('audio', ['core', 'contract', 'sync']),
    only('ui', ['core', 'contract', 'audio', 'sync', 'words']),
    only('cli', ['core', 'contract', 'data', 'studio']),
    only('app', ['core', 'contract', 'server', 'studio', 'ui']),
    {
      name: 'use-cases-stand-alone',
      comment: 'What a studio can do is entered by pages, worker and command line alike: no Next and no React in it.',
      severity: 'error',
      from: { path: '^src/(studio|data)/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(next|react|react-dom|better-auth)/' },
    },
    {
      name: 'pages-take-types-of-routes-only',
      comment: 'The table of routes holds every schema: a page that imported it would carry them all.',
      severity: 'error',
      from: { path: '^src/(ui|sync|audio)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/contract/', dependencyTypesNot: ['type-only'] },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    exclude: '^src/.*\\.css$',
  },
};
