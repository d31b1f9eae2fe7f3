/** Imports go downward only: web, server -> contract -> core. Cycles are refused. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(contract|server|web|demo|scripts|e2e)/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-sees-core-only',
      severity: 'error',
      from: { path: '^contract/' },
      to: { path: '^(server|web|demo|scripts|e2e)/' },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|e2e)/' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: '^web/', pathNot: '^web/testing/' },
      to: { path: '^(server|demo|e2e)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
}
