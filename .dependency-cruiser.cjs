/** One direction of dependence: core knows nobody, kernel knows core; web, server and cli know both. */
const pure = '^core/src'
/** What each folder of core may import, besides itself and the files beside it. */
const CORE = {
  units: [],
  names: [],
  standards: [],
  formula: ['units', 'standards'],
  geometry: [],
  sketch: ['geometry'],
  equations: ['geometry', 'sketch'],
  constraints: ['geometry', 'sketch', 'equations'],
  solver: ['geometry', 'sketch', 'equations', 'constraints'],
  section: ['names', 'geometry', 'sketch'],
  solid: ['names', 'geometry', 'sketch', 'section'],
  part: ['units', 'standards', 'formula', 'sketch', 'constraints'],
  route: [
    'names',
    ...['units', 'standards', 'formula', 'geometry', 'sketch', 'constraints'],
    ...['solver', 'section', 'solid', 'part'],
  ],
  edit: [
    'names',
    ...['units', 'standards', 'formula', 'geometry', 'sketch', 'constraints'],
    ...['solver', 'section', 'solid', 'part', 'route'],
  ],
  recover: [
    'names',
    ...['units', 'geometry', 'sketch', 'constraints', 'section', 'solid'],
    ...['part', 'route', 'edit', 'formats'],
  ],
  mesh: ['names', 'geometry', 'section', 'solid'],
  inspect: [
    'names',
    'units',
    'formula',
    'geometry',
    'sketch',
    'section',
    'solid',
    'mesh',
    'part',
    'route',
  ],
  vary: [
    ...['units', 'standards', 'formula', 'geometry', 'sketch', 'constraints', 'solver', 'section'],
    ...['names', 'part', 'route', 'inspect', 'edit', 'notes'],
  ],
  notes: [
    ...['names', 'units', 'standards', 'formula', 'geometry', 'section', 'mesh', 'part', 'route'],
    'edit',
  ],
  drawing: [
    ...[
      'names',
      'units',
      'standards',
      'formula',
      'geometry',
      'sketch',
      'constraints',
      'section',
      'solid',
    ],
    ...['part', 'route', 'notes', 'inspect', 'vary'],
  ],
  plan: [
    ...['units', 'formula', 'geometry', 'constraints', 'section', 'part', 'route', 'notes'],
    ...['vary', 'drawing'],
  ],
  pdf: ['geometry', 'drawing'],
  wire: ['part', 'inspect', 'formats'],
  formats: [
    'names',
    ...['units', 'standards', 'formula', 'geometry', 'sketch', 'constraints', 'section', 'solid'],
    ...['part', 'route', 'notes', 'mesh', 'inspect', 'drawing', 'plan'],
  ],
}

/** Within a folder of core, what each floor of it may import besides itself and the files beside the floors. */
const FLOORS = {
  section: { engine: [], drawn: ['engine'], work: ['engine'], ask: ['engine'] },
  edit: { sketch: [], route: [], sheet: [] },
}

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: pure },
      to: {
        path: [
          '^(kernel|server|web|cli)/',
          'node_modules/(vue|koa|three|knex|ant-design-vue|pinia)/',
        ],
      },
    },
    {
      name: 'core-has-no-node-api',
      severity: 'error',
      from: { path: pure },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'packages-are-entered-by-their-front-door',
      severity: 'error',
      from: { path: '^(kernel|server|web|cli)/src' },
      to: {
        path: '^core/src/',
        pathNot: '^core/src/([a-z]+/index|result|tolerances|once|units/shown)\\.ts$',
      },
    },
    {
      name: 'kernel-is-entered-by-its-front-door',
      severity: 'error',
      from: { path: '^(server|web|cli)/src' },
      to: { path: '^kernel/src/(?!index\\.ts)' },
    },
    {
      name: 'web-server-and-cli-are-apart',
      severity: 'error',
      from: { path: '^(server|web|cli)/src' },
      to: {
        path: '^(server|web|cli)/src',
        // What saves a damaged database is asked for on the command line.
        pathNot: ['^$1/src', '^server/src/database/rescue\\.ts$'],
      },
    },
    {
      name: 'only-the-command-line-rescues',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^server/src' },
    },
    ...Object.entries(FLOORS).flatMap(([folder, floors]) =>
      Object.entries(floors).map(([floor, allowed]) => ({
        name: `core-${folder}-${floor}`,
        severity: 'error',
        from: { path: `^core/src/${folder}/${floor}/` },
        to: {
          path: `^core/src/${folder}/[^/]+/`,
          pathNot: `^core/src/${folder}/(${[floor, ...allowed].join('|')})/`,
        },
      })),
    ),
    ...Object.entries(CORE).map(([folder, allowed]) => ({
      name: `core-${folder}`,
      severity: 'error',
      from: { path: `^core/src/${folder}/` },
      to: {
        path: '^core/src/',
        pathNot: [
          `^core/src/(${[folder, ...allowed].join('|')})/`,
          '^core/src/(result|tolerances|once)\\.ts$',
        ],
      },
    })),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require'] },
  },
}
