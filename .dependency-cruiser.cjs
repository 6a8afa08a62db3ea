// Imports run one way: web, server, cli → contracts → core; inside core along the flow of the work.
const inCore = (folder) => `^packages/core/src/${folder}/`;
const rule = (name, from, to) => ({ name, severity: 'error', from: { path: from }, to: { path: to } });
const other = (folders) => inCore(`(${folders.join('|')})`);

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    rule('core-knows-nobody', '^packages/core/', '^(packages/(contracts|cli|fonts|machines)|apps)/'),
    rule('fonts-know-core-only', '^packages/fonts/', '^(packages/(contracts|cli)|apps)/'),
    rule('web-has-no-node-packages', '^apps/web/', '^packages/(fonts|cli|machines)/'),
    rule('machines-stand-alone', '^packages/machines/', '^(packages/(core|contracts|cli|fonts)|apps)/'),
    rule('contracts-know-core-only', '^packages/contracts/', '^(packages/cli|apps)/'),
    rule('cli-knows-core-only', '^packages/cli/', '^(packages/contracts|apps)/'),
    rule('web-stands-alone', '^apps/web/', '^apps/(server|stand-in)/'),
    rule('server-stands-alone', '^apps/server/', '^apps/(web|stand-in)/'),
    rule('stand-in-is-written-apart', '^apps/stand-in/', '^(packages|apps/(web|server))/'),
    rule('core-has-no-interface', '^packages/core/', '(react|konva|@nestjs|typeorm)'),
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$|/fixtures/' },
      to: { dependencyTypes: ['core'] },
    },
    rule(
      'units-know-nobody',
      inCore('units'),
      other(['geometry', 'drawing', 'fit', 'formats', 'colours', 'recipes', 'plan', 'checks']),
    ),
    rule(
      'geometry-knows-nobody',
      inCore('geometry'),
      other(['units', 'drawing', 'fit', 'formats', 'colours', 'recipes', 'plan', 'checks']),
    ),
    rule(
      'text-knows-geometry-only',
      inCore('text'),
      other(['drawing', 'fit', 'formats', 'colours', 'recipes', 'plan', 'checks']),
    ),
    rule('drawing-comes-first', inCore('drawing'), other(['fit', 'formats', 'colours', 'recipes', 'plan', 'checks'])),
    rule('fit-comes-before-colours', inCore('fit'), other(['formats', 'colours', 'recipes', 'plan', 'checks'])),
    rule('colours-come-before-plan', inCore('colours'), other(['formats', 'recipes', 'plan', 'checks'])),
    rule('recipes-come-before-plan', inCore('recipes'), other(['formats', 'plan', 'checks'])),
    rule('plan-comes-before-checks', inCore('plan'), other(['formats', 'checks'])),
    rule('formats-know-no-checks', inCore('formats'), inCore('checks')),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|dist-types)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['lambent-source', 'import', 'default'] },
  },
};
