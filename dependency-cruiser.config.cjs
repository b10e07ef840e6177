/** Imports point one way: web → core, player; server and cli → core, demo; demo → core; core → player for types only. */
const only = (from, allowed) => ({
  name: `${from}-imports`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: '^(core|player|server|cli|web|demo)/', pathNot: `^(${[from, ...allowed].join('|')})/` },
});
/** Folders under `write` that several formats use. */
const FAMILIES = ['assets', 'book', 'exchange', 'office', 'ooxml', 'opendocument', 'pages', 'reflow'];
const room = (...names) => `^core/src/(${names.join('|')})/`;
const never = (name, comment, from, to) => ({ name, comment, severity: 'error', from: { path: from }, to: { path: to } });

const isomorphic = '^core/src/(folio|compose|structure|motion|check|language|edit|api|paint/svg)/';

module.exports = {
  forbidden: [
    only('web', ['core', 'player']),
    only('server', ['core', 'demo']),
    only('cli', ['core', 'demo']),
    only('demo', ['core']),
    only('player', []),
    { name: 'core-imports', severity: 'error', from: { path: '^core/' }, to: { path: '^(server|cli|web|demo)/' } },
    {
      name: 'core-player-types-only',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^player/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'isomorphic-core',
      comment: 'These parts also run in a browser worker.',
      severity: 'error',
      from: { path: isomorphic },
      to: { dependencyTypes: ['core'] },
    },
    never(
      'read-back-stands-alone',
      'What checks the outputs shares no code with what writes them, draws them or reads sources.',
      room('ledger'),
      room('write', 'paint', 'read', 'preview'),
    ),
    never(
      'reading-writes-nothing',
      'What reads sources knows no output and no account of one.',
      room('read'),
      room('write', 'ledger', 'paint', 'preview'),
    ),
    never('preview-knows-no-writer', 'A result is drawn from its files alone.', room('preview'), room('write')),
    never(
      'intake-knows-no-format',
      'What all readers have in common is neutral of any format.',
      room('intake'),
      room('read', 'write', 'ledger', 'preview'),
    ),
    never('packages-know-no-room', 'Archives and XML are parsed for anyone.', room('packages'), '^core/src/(?!packages/|folio/|ports/)'),
    never('alignment-stands-alone', 'Sequences are aligned whatever they are of.', room('alignment'), '^core/src/(?!alignment/)'),
    never(
      'no-room-knows-the-interface',
      'What goes over HTTP is made of the rooms, never the other way round.',
      '^core/src/(?!api/)',
      room('api'),
    ),
    {
      name: 'families-know-no-format',
      comment: 'What formats of a family have in common knows none of them; but files for translators come with the layout as a PDF.',
      severity: 'error',
      from: { path: `^core/src/write/(${FAMILIES.join('|')})/`, pathNot: '^core/src/write/exchange/exchangeWriter[.]ts$' },
      to: { path: `^core/src/write/(?!(${FAMILIES.join('|')})/)[^/]+/` },
    },
    {
      name: 'formats-stand-apart',
      comment: 'A format uses families, never another format.',
      severity: 'error',
      from: { path: '^core/src/write/([^/]+)/', pathNot: `^core/src/write/(${FAMILIES.join('|')})/` },
      to: { path: '^core/src/write/[^/]+/', pathNot: [`^core/src/write/(${FAMILIES.join('|')})/`, '^core/src/write/$1/'] },
    },
    {
      name: 'document-knows-no-format',
      severity: 'error',
      from: { path: '^core/src/(folio|edit|compose|structure)/' },
      to: { path: '^core/src/(read|write|ledger|paint)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
  ],
  options: {
    tsPreCompilationDeps: 'specify',
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.ts$' },
  },
};
