/** Imports point one way: web → core, player; server and cli → core, demo; demo → core; core → player for types only. */
const only = (from, allowed) => ({
  name: `${from}-imports`,
  severity: 'error',
  from: { path: `^${from}/` },
  to: { path: '^(core|player|server|cli|web|demo)/', pathNot: `^(${[from, ...allowed].join('|')})/` },
});
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
    {
      name: 'read-back-stands-alone',
      comment: 'What checks the outputs shares no code with what writes them.',
      severity: 'error',
      from: { path: '^core/src/ledger/' },
      to: { path: '^core/src/(write|paint)/' },
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
