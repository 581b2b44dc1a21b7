/** Arrows between folders point down only: docs/architecture.md. */
const may = {
  core: [],
  formats: ['core'],
  application: ['core', 'formats'],
  server: ['core', 'formats', 'application'],
  print: ['core', 'application'],
  workers: ['core', 'formats', 'application'],
  ui: ['core', 'formats', 'application', 'workers'],
  // The server's rooms in the browser: the same routes over a database of the device.
  device: ['core', 'formats', 'application', 'server', 'app'],
  app: ['core', 'formats', 'application', 'server', 'print', 'ui'],
  cli: ['core', 'formats', 'application'],
  demo: ['core', 'formats', 'application', 'server'],
  scripts: ['core', 'formats', 'application', 'server', 'demo', 'e2e'],
  trial: ['core', 'formats'],
  bench: ['core', 'formats', 'application', 'server', 'demo', 'e2e', 'trial'],
  e2e: ['core', 'formats', 'application', 'server', 'demo'],
};
const rooms = Object.keys(may);
const arrow = (room) => ({
  name: `${room}-points-down`,
  severity: 'error',
  // Some tests of the server need a fleet with a history: the demo's. The others run on the small workshop of
  // server/testing/.
  from: { path: `^${room}/`, ...(room === 'server' ? { pathNot: '\\.test\\.ts$' } : {}) },
  to: { path: `^(${rooms.filter((r) => r !== room && !may[room].includes(r)).join('|')})/` },
});
/**
 * One floor finer: each room of core/ and each feature of server/ with those that it may import, and no
 * others.
 */
const coreMay = {
  locale: [],
  foundation: [],
  numerics: [],
  quantity: ['locale', 'foundation'],
  metrology: ['locale', 'foundation', 'numerics', 'quantity'],
  engine: ['locale', 'foundation'],
  codes: ['locale', 'foundation', 'engine'],
  limits: ['locale', 'foundation', 'numerics', 'quantity', 'metrology'],
  catalogue: ['locale', 'foundation', 'quantity', 'metrology', 'engine', 'limits'],
  judge: ['locale', 'foundation', 'numerics', 'quantity', 'metrology', 'engine', 'limits', 'catalogue'],
  specifications: ['locale', 'foundation', 'quantity', 'engine', 'limits', 'catalogue', 'judge'],
  calculations: ['locale', 'foundation', 'quantity', 'metrology', 'limits'],
  solver: ['locale', 'foundation', 'numerics'],
  simulate: ['locale', 'foundation', 'numerics', 'solver', 'circuits', 'engine', 'instrument'],
  instrument: ['locale', 'foundation', 'quantity', 'metrology'],
  circuits: ['locale', 'foundation', 'quantity', 'engine', 'limits', 'catalogue', 'solver'],
  signal: ['locale', 'foundation', 'numerics', 'quantity', 'engine', 'limits'],
  evidence: ['locale', 'foundation', 'quantity', 'metrology', 'engine', 'limits', 'catalogue', 'judge'],
  plan: ['locale', 'foundation', 'numerics', 'quantity', 'engine', 'catalogue', 'judge', 'evidence'],
  diagnosis: [
    'locale',
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
  repair: ['locale', 'foundation', 'numerics', 'quantity', 'engine', 'codes', 'judge', 'evidence'],
  job: ['locale', 'foundation', 'quantity', 'catalogue', 'codes', 'judge', 'evidence', 'plan', 'repair'],
};
const serverMay = {
  db: [],
  locale: [],
  journal: ['db'],
  people: ['db', 'policy', 'journal', 'locale'],
  device: ['db'],
  policy: ['db'],
  fleet: ['db', 'policy', 'journal'],
  installation: ['db', 'fleet', 'people', 'locale'],
  instruments: ['db', 'policy', 'journal'],
  catalogue: ['db', 'policy', 'journal'],
  specifications: ['db', 'policy', 'journal', 'catalogue'],
  readings: ['db', 'policy', 'journal', 'fleet', 'catalogue', 'instruments', 'specifications'],
  evidence: ['db', 'policy', 'journal', 'readings'],
  traces: ['db', 'policy', 'journal', 'fleet', 'catalogue', 'specifications'],
  repair: ['db', 'policy', 'journal', 'evidence', 'readings'],
  audit: ['db', 'journal'],
  live: ['db'],
  files: [],
  jobs: [
    'db',
    'policy',
    'journal',
    'traces',
    'fleet',
    'catalogue',
    'readings',
    'evidence',
    'repair',
    'specifications',
    'instruments',
    'audit',
  ],
  kit: ['db', 'policy', 'fleet', 'catalogue', 'specifications', 'repair'],
  upgrade: ['db', 'journal', 'jobs'],
  bundle: ['db', 'files', 'policy', 'journal', 'fleet', 'evidence', 'traces', 'readings', 'jobs', 'audit'],
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
      name: 'trial-shares-nothing-but-netlists',
      comment: 'what measures the diagnosis may not share an assumption with it',
      severity: 'error',
      from: { path: '^trial/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(core|formats)/', pathNot: '^(core/circuits/|formats/)' },
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
      from: { pathNot: '\\.test\\.tsx?$|^server/testing/|/testing\\.ts$|^scripts/prepare-tests\\.ts$' },
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
