// The arrows of the house: web → core, server → core, core → nothing; the codecs stay in their own room.
module.exports = {
  forbidden: [
    {
      name: 'core-knows-nobody',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/(server|web|runtime)' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-few-packages',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$' },
      to: {
        path: 'node_modules',
        pathNot: 'node_modules/(@noble/hashes|slugify|papaparse|fractional-indexing|css-tree)/',
      },
    },
    {
      name: 'runtime-stands-alone',
      severity: 'error',
      from: { path: '^packages/runtime/src', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^packages/runtime/src' },
    },
    {
      name: 'web-not-server',
      severity: 'error',
      from: { path: '^packages/web' },
      to: { path: '^packages/server' },
    },
    {
      name: 'server-not-web',
      severity: 'error',
      from: { path: '^packages/server' },
      to: { path: '^packages/web' },
    },
    {
      name: 'codecs-in-their-room',
      severity: 'error',
      from: {
        path: '^packages/server/src',
        pathNot: '^packages/server/src/(codec/|testing/|.*\\.test\\.ts$)',
      },
      to: { path: 'node_modules/(sharp|exifreader|dompurify|jsdom)/' },
    },
    {
      name: 'one-door-to-what-is-stored',
      comment: 'Rows are read by store/ and changed by changes/; everybody else asks these.',
      severity: 'error',
      from: {
        path: '^packages/server/src',
        pathNot: '^packages/server/src/(store|changes|database|testing)/|\\.test\\.ts$',
      },
      to: { path: '^packages/server/src/database/((words|site)-)?models\\.ts$' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-unresolvable',
      severity: 'error',
      from: { path: '^packages' },
      to: { couldNotResolve: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist(-types)?/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json', '.css'],
    },
  },
};
