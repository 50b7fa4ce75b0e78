// What the page loads: the compiled imports alone, followed to their ends. Solving and judging happen in workers and on the server.
module.exports = {
  forbidden: [
    {
      name: 'page-apart-from-engine',
      severity: 'error',
      comment: 'the page asks a worker; its thread neither solves nor judges, nor loads what does',
      from: { path: '^src/(ui|places)/' },
      to: { path: '^src/core/(solve|judge)/', reachable: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: false,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
};
