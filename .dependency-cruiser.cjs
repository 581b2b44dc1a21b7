/** Arrows between folders point down only: docs/architecture.md. */
const rooms = ['core', 'formats', 'server', 'workers', 'ui', 'app', 'cli', 'demo', 'e2e', 'bench', 'scripts'];
const may = {
  core: [],
  formats: ['core'],
  server: ['core', 'formats'],
  workers: ['core'],
  ui: ['core', 'formats', 'workers'],
  app: ['core', 'formats', 'server', 'ui'],
  cli: ['core', 'formats'],
  demo: ['core', 'formats', 'server'],
  scripts: ['core', 'formats', 'server', 'demo'],
  bench: ['core', 'formats', 'server', 'demo', 'e2e'],
  e2e: ['core', 'formats', 'server', 'demo'],
};
const arrow = (room) => ({
  name: `${room}-points-down`,
  severity: 'error',
  from: { path: `^${room}/` },
  to: { path: `^(${rooms.filter((r) => r !== room && !may[room].includes(r)).join('|')})/` },
});
/** Inside core, from the ground up. A floor may use those below it. */
const floors = [
  'quantity',
  'metrology',
  'engine',
  'codes',
  'limits',
  'catalogue',
  'judge',
  'shelf',
  'sums',
  'evidence',
  'plan',
  'circuit',
  'diagnosis',
  'repair',
  'job',
];
const floor = (name, i) => ({
  name: `core-${name}-points-down`,
  severity: 'error',
  from: { path: `^core/${name}/` },
  to: { path: `^core/(${floors.slice(i + 1).join('|')})/` },
});

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...rooms.map(arrow),
    ...floors.slice(0, -1).map(floor),
    {
      name: 'core-is-pure',
      comment: 'core runs in the browser, in a worker, on the server and in the command line',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|/testing\\.ts$' },
      to: { dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-peer', 'npm-optional'] },
    },
    {
      name: 'formats-is-portable',
      severity: 'error',
      from: { path: '^formats/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'no-test-tools-in-code',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/.*/testing\\.ts$' },
    },
    {
      name: 'no-tests-in-code',
      severity: 'error',
      from: { pathNot: '\\.test\\.tsx?$' },
      to: { path: '\\.test\\.tsx?$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^\\.next/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
};
