// Imports run one way: web, server, cli → contracts → core; inside core along the flow of the work.
const inCore = (folder) => `^packages/core/src/${folder}/`;
const rule = (name, from, to) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });
/** For what is built: a test may draw on what comes later. */
const builtRule = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.ts$' },
  to: { path: to },
});
/** The rooms of core, in the order of the work: each may read those before it. */
const rooms = [
  'units',
  'lists',
  'day',
  'schema',
  'geometry/paths',
  'geometry/questions',
  'geometry/areas',
  'geometry/offsets',
  'operations',
  'machine',
  'settings',
  'document',
  'pictures',
  'text',
  'codes',
  'picking',
  'edits',
  'fit',
  'builders',
  'colours',
  'recipes/book',
  'recipes/in-force',
  'recipes/cards',
  'plan',
  'packing',
  'rows',
  'sharing',
  'timing',
  'formats',
  'revisions',
  'mends',
  'checks',
];

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    rule('core-knows-nobody', '^packages/core/', '^(packages/(contracts|cli|fonts|machines)|apps)/'),
    rule('fonts-know-core-only', '^packages/fonts/', '^(packages/(contracts|cli)|apps)/'),
    rule('web-has-no-node-packages', '^apps/web/', '^packages/(fonts|cli|machines)/'),
    rule('machines-stand-alone', '^packages/machines/', '^(packages/(core|contracts|cli|fonts)|apps)/'),
    rule('contracts-know-core-only', '^packages/contracts/', '^(packages/cli|apps)/'),
    rule('cli-knows-no-apps', '^packages/cli/', '^apps/'),
    rule('web-stands-alone', '^apps/web/', '^apps/(server|(plain-)?stand-in)/'),
    rule('server-stands-alone', '^apps/server/', '^apps/(web|(plain-)?stand-in)/'),
    rule('stand-ins-are-written-apart', '^apps/(plain-)?stand-in/', '^(packages|apps/(web|server))/'),
    rule('stand-ins-know-not-each-other', '^apps/stand-in/', '^apps/plain-stand-in/'),
    rule('the-plain-stand-in-knows-no-other', '^apps/plain-stand-in/', '^apps/stand-in/'),
    rule('core-has-no-interface', '^packages/core/', '(react|konva|@nestjs|typeorm)'),
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$|/fixtures/' },
      to: { dependencyTypes: ['core'] },
    },
    ...rooms.map((room, i) =>
      builtRule(
        `${room}-reads-only-rooms-before-it`,
        inCore(room),
        inCore(`(${rooms.slice(i + 1).join('|') || 'none'})`),
      ),
    ),
    ...['units', 'lists', 'day', 'schema', 'geometry'].map((room) =>
      builtRule(`${room}-knows-lists-alone`, inCore(room), inCore(`(?!(${room}|lists)/)[^/]+`)),
    ),
    builtRule('text-knows-geometry-and-shapes-only', inCore('text'), inCore('(?!(text|geometry|document)/)[^/]+')),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|dist-types|dist-program)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['lambent-source', 'import', 'default'] },
  },
};
