/** Imports point one way (docs/architecture.md): app -> ui, server; ui -> audio, sync; server -> data; everything -> core; core -> itself. */
const ROOMS = [
  'engine',
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
      from: { path: '^src/core/', pathNot: ['\\.test\\.ts$', '^src/core/format/'] },
      to: { pathNot: '^src/core/' },
    },
    {
      name: 'formats-use-libraries',
      comment: 'Adapters over well-kept libraries that run anywhere; nothing of Node or of ours outside core.',
      severity: 'error',
      from: { path: '^src/core/format/', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/core/', 'node_modules/(@tonejs/midi|fast-xml-parser|fflate|ics|zod)/'] },
    },
    ...core,
    only('data', ['core']),
    only('server', ['core', 'data']),
    only('worker', ['core', 'data']),
    only('sync', ['core']),
    only('audio', ['core', 'sync']),
    only('ui', ['core', 'audio', 'sync']),
    only('cli', ['core', 'data']),
    only('app', ['core', 'server', 'ui']),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    exclude: '^src/.*\\.css$',
  },
};
