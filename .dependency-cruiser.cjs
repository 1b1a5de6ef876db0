/** Imports run one way: core <- contract <- server, web, cli; inside the web, never from room to room. */
const ROOMS = 'piece|layers|plans';

module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.spec\\.ts$' },
      to: { pathNot: '^packages/core/src|node_modules/(culori|@types/culori|spectral\\.js)/' },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^packages/contract/src', pathNot: '\\.spec\\.ts$' },
      to: { path: '^(apps|packages/cli)' },
    },
    {
      name: 'server-and-web-never-meet',
      severity: 'error',
      from: { path: '^apps/web' },
      to: { path: '^(apps/server|packages/cli)' },
    },
    {
      name: 'web-never-in-server',
      severity: 'error',
      from: { path: '^(apps/server|packages/cli)' },
      to: { path: '^apps/web' },
    },
    {
      name: 'no-room-to-room',
      severity: 'error',
      from: { path: `^apps/web/src/app/(${ROOMS})/` },
      to: { path: `^apps/web/src/app/(${ROOMS})/`, pathNot: '^apps/web/src/app/$1/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.imports.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['types', 'import', 'default'] },
  },
};
