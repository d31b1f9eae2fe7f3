/** Imports go downward only: web, server -> contract -> core. Cycles are refused. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(contract|server|web|demo|rig|scripts|e2e)/' },
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
      to: { path: '^(server|web|demo|rig|scripts|e2e)/' },
    },
    {
      name: 'server-and-web-apart',
      severity: 'error',
      from: { path: '^server/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(web|rig|e2e)/' },
    },
    {
      name: 'web-and-server-apart',
      severity: 'error',
      from: { path: '^web/', pathNot: '^web/tests/' },
      to: { path: '^(server|demo|rig|e2e)/' },
    },
    {
      name: 'stations-apart',
      comment: 'What two stations share stands beside them.',
      severity: 'error',
      from: { path: '^web/src/views/([^/]+)/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^web/src/views/[^/]+/', pathNot: '^web/src/views/$1/' },
    },
    {
      name: 'rig-is-a-stranger',
      severity: 'error',
      from: { path: '^rig/' },
      to: { path: '^(server|web|e2e)/' },
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
