// One street: each stage imports only from stages above it.
const CORE = [
  'quantity',
  'parts',
  'design',
  'drawer',
  'load',
  'circuit',
  'netlist',
  'solve',
  'fit',
  'study',
  'picture',
  'judge',
  'size',
  'bench',
  'instrument',
  'mains-side',
  'build',
  'board',
  'box',
  'sheet',
];
const earlier = (stage) => CORE.slice(0, CORE.indexOf(stage) + 1);
// bench and size stand side by side behind judge; sheet comes last.
const allowed = (stage) => (stage === 'bench' ? earlier('bench').filter((s) => s !== 'size') : earlier(stage));

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    ...CORE.map((stage) => ({
      name: `street-${stage}`,
      severity: 'error',
      comment: 'data walks down the street and never back; naming a later stage’s type is no import',
      from: { path: `^src/core/${stage}/` },
      to: { path: '^src/', pathNot: allowed(stage).map((s) => `^src/core/${s}/`), dependencyTypesNot: ['type-only'] },
    })),
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/' },
      to: {
        path: '^(src/(workers|cli|server|ui|places|app)/|node_modules/(react|next|better-sqlite3|d3-|zustand|radix-ui))',
      },
    },
    {
      name: 'ui-below-places',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/(places|app|cli)/' },
    },
    {
      name: 'places-apart',
      severity: 'error',
      from: { path: '^src/places/([^/]+)/' },
      to: { path: '^src/places/', pathNot: '^src/places/$1/' },
    },
    {
      name: 'places-below-app',
      severity: 'error',
      from: { path: '^src/places/' },
      to: { path: '^src/(app|cli)/' },
    },
    {
      name: 'no-server-in-browser',
      severity: 'error',
      from: { path: '^src/(ui|places|workers)/' },
      to: { path: '^src/server/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'no-browser-on-server',
      severity: 'error',
      from: { path: '^src/(server|cli|workers)/' },
      to: { path: '^src/(ui|places|app)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
};
