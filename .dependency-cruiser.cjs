/** Arrows between folders point down only: docs/architecture.md. */
const may = {
  core: [],
  formats: ['core'],
  application: ['core', 'formats'],
  server: ['core', 'formats', 'application'],
  print: ['core', 'application'],
  workers: ['core'],
  ui: ['core', 'formats', 'application', 'workers'],
  app: ['core', 'formats', 'application', 'server', 'print', 'ui'],
  cli: ['core', 'formats', 'application'],
  demo: ['core', 'formats', 'application', 'server'],
  scripts: ['core', 'formats', 'application', 'server', 'demo'],
  bench: ['core', 'formats', 'application', 'server', 'demo', 'e2e'],
  e2e: ['core', 'formats', 'application', 'server', 'demo'],
};
const rooms = Object.keys(may);
const arrow = (room) => ({
  name: `${room}-points-down`,
  severity: 'error',
  // Tests of the server run on the demo's fleet.
  from: { path: `^${room}/`, ...(room === 'server' ? { pathNot: '\\.test\\.ts$|^server/testing/' } : {}) },
  to: { path: `^(${rooms.filter((r) => r !== room && !may[room].includes(r)).join('|')})/` },
});
/** One floor finer: each room of core/ and each feature of server/ with those that it may import, and no others. */
const coreMay = {
  foundation: [],
  numerics: [],
  quantity: ['foundation'],
  metrology: ['foundation', 'numerics', 'quantity'],
  engine: ['foundation'],
  codes: ['foundation', 'engine'],
  limits: ['foundation', 'numerics', 'quantity', 'metrology'],
  catalogue: ['foundation', 'quantity', 'metrology', 'engine', 'limits'],
  judge: ['foundation', 'numerics', 'quantity', 'metrology', 'engine', 'limits', 'catalogue'],
  specifications: ['foundation', 'quantity', 'engine', 'limits', 'catalogue', 'judge'],
  calculations: ['foundation', 'quantity', 'metrology', 'limits'],
  solver: ['foundation', 'numerics'],
  circuits: ['foundation', 'quantity', 'engine', 'limits', 'catalogue', 'solver'],
  evidence: ['foundation', 'quantity', 'metrology', 'engine', 'catalogue', 'judge'],
  plan: ['foundation', 'quantity', 'engine', 'catalogue', 'judge', 'evidence'],
  diagnosis: [
    'foundation',
    'numerics',
    'quantity',
    'metrology',
    'engine',
    'catalogue',
    'judge',
    'evidence',
    'plan',
    'solver',
    'circuits',
  ],
  repair: ['foundation', 'numerics', 'quantity', 'engine', 'codes', 'judge', 'evidence'],
  job: ['foundation', 'codes', 'judge', 'evidence', 'plan', 'repair'],
};
const serverMay = {
  db: [],
  journal: ['db'],
  people: ['db', 'policy', 'journal'],
  policy: ['db'],
  fleet: ['db', 'policy', 'journal'],
  instruments: ['db', 'policy', 'journal'],
  catalogue: ['db', 'policy', 'journal'],
  specifications: ['db', 'policy', 'journal', 'catalogue'],
  readings: ['db', 'policy', 'journal', 'fleet', 'catalogue', 'instruments', 'specifications'],
  evidence: ['db', 'policy', 'journal', 'readings'],
  repair: ['db', 'policy', 'journal', 'evidence', 'readings'],
  audit: ['db', 'journal'],
  live: ['db'],
  jobs: [
    'db',
    'policy',
    'journal',
    'fleet',
    'catalogue',
    'readings',
    'evidence',
    'repair',
    'specifications',
    'instruments',
    'audit',
  ],
  bundle: ['db', 'policy', 'journal', 'evidence', 'readings', 'jobs', 'audit'],
};
const inner = (top, table) =>
  Object.entries(table).map(([name, allowed]) => ({
    name: `${top}-${name}-imports-what-it-declares`,
    severity: 'error',
    from: { path: `^${top}/${name}/`, pathNot: '\\.test\\.ts$' },
    to: { path: `^${top}/`, pathNot: `^${top}/(${[name, ...allowed].join('|')})/` },
  }));

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    ...rooms.map(arrow),
    ...inner('core', coreMay),
    ...inner('server', serverMay),
    {
      name: 'every-room-is-declared',
      severity: 'error',
      from: {
        path: '^(core|server)/',
        pathNot: `^(core/(${Object.keys(coreMay).join('|')})|server/(${Object.keys(serverMay).join('|')}|testing))/`,
      },
      to: {},
    },
    {
      name: 'core-is-pure',
      comment: 'core runs in the browser, in a worker, on the server and in the command line',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$|/testing\\.ts$' },
      to: { dependencyTypes: ['core', 'npm', 'npm-dev', 'npm-peer', 'npm-optional'] },
    },
    {
      name: 'formats-and-application-are-portable',
      severity: 'error',
      from: { path: '^(formats|application)/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'no-test-tools-in-code',
      severity: 'error',
      from: { pathNot: '\\.test\\.tsx?$|^server/testing/' },
      to: { path: '/testing\\.ts$|^server/testing/' },
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
