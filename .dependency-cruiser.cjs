/** Which folder may import which. Data flows one way: formats → model → plan → solve → audit → view. */
module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment: 'The core knows no interface, server or runtime.',
      from: { path: '^core/src' },
      to: { path: '^(web|server|cli|bench|e2e)/|node_modules/(react|express|@mantine|dexie|vexflow)' },
    },
    {
      name: 'core-no-node',
      severity: 'error',
      from: { path: '^core/src' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'audit-knows-no-solver',
      severity: 'error',
      comment: 'The audit judges the finished tab alone.',
      from: { path: '^core/src/audit' },
      to: { path: '^core/src/(solve|plan|pick|shapes|grip)' },
    },
    {
      name: 'layout-knows-no-solver',
      severity: 'error',
      from: { path: '^core/src/(layout|ring|sound)' },
      to: { path: '^core/src/(solve|audit)' },
    },
    {
      name: 'model-is-the-bottom',
      severity: 'error',
      from: { path: '^core/src/(model|time|pitch|neck)' },
      to: { path: '^core/src/(formats|form|plan|solve|audit|effort|explain|layout|sound|schema)' },
    },
    {
      name: 'plan-before-solve',
      severity: 'error',
      from: { path: '^core/src/plan' },
      to: { path: '^core/src/(solve|audit|formats)' },
    },
    {
      name: 'web-not-server',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^(server|cli|bench)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
}
