const { readdirSync } = require('node:fs');

/**
 * Rooms of the core in the order a plan goes through them: each may import those before it, through their door. A new
 * folder of the core must take its place here.
 */
const CORE = [
  'errors units numeric air media film crack chip colour tools wood plan basis course wear maps raster quantity prep piece',
  'outcome face notes forecast schedule hazard readout measure solve live calibrate photo board',
]
  .join(' ')
  .split(' ');
const placeless = readdirSync(`${__dirname}/packages/core/src`, { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && ![...CORE, 'testing'].includes(entry.name))
  .map(({ name }) => name);
if (placeless.length > 0) throw new Error(`give these rooms of the core a place: ${placeless.join(', ')}`);
const CORE_SRC = '^packages/core/src';
const coreOrder = CORE.map((room, i) => ({
  name: `core-${room}-imports-down`,
  severity: 'error',
  from: { path: `${CORE_SRC}/${room}(/|\\.ts$)`, pathNot: '\\.spec\\.ts$' },
  to: { path: `${CORE_SRC}/(${[...CORE.slice(i + 1), 'testing'].join('|')})(/|\\.ts$)` },
}));

/*
 * Imports run one way: core <- contract <- workshop <- words <- server, web, cli; inside the web, never from room to room. A folder of the web
 * is a room unless it is one of those that rooms share.
 */
const SHARED = ['data', 'plan', 'runs', 'shop', 'solve', 'testing', 'ui', 'workers', 'shell'];
const ROOMS = readdirSync(`${__dirname}/apps/web/src/app`, { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && !SHARED.includes(entry.name))
  .map(({ name }) => name)
  .join('|');

module.exports = {
  forbidden: [
    ...coreOrder,
    {
      name: 'core-rooms-have-one-door',
      severity: 'error',
      from: { path: `${CORE_SRC}/([^/]+)/`, pathNot: '\\.spec\\.ts$|^packages/core/src/testing/' },
      to: { path: `${CORE_SRC}/[^/]+/.+`, pathNot: `${CORE_SRC}/($1/|numeric/|[^/]+/index\\.ts$)` },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.spec\\.ts$|testing/golden\\.ts$' },
      to: { pathNot: '^packages/core/src|node_modules/(culori|@types/culori|spectral\\.js|js-aruco2)/' },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^packages/contract/src', pathNot: '\\.spec\\.ts$' },
      to: { path: '^(apps|packages/(cli|workshop|words))' },
    },
    {
      name: 'workshop-knows-core-and-contract',
      severity: 'error',
      from: { path: '^packages/workshop/src', pathNot: '\\.spec\\.ts$' },
      to: { path: '^(apps|packages/(cli|words))' },
    },
    {
      name: 'words-are-for-all',
      severity: 'error',
      from: { path: '^packages/words/src', pathNot: '\\.spec\\.ts$' },
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
      name: 'shared-knows-no-room',
      severity: 'error',
      from: { path: '^apps/web/src/app/(data|plan|runs|shop|solve|ui|workers)/' },
      to: { path: `^apps/web/src/app/(${ROOMS}|shell)/` },
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
