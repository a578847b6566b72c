/** The way through the house: core → contract → server and web. Nothing below knows what stands above it. */
const only = (name, from, allowed, comment) => ({
  name, severity: 'error', comment,
  from: { path: from, pathNot: '\\.(test|spec|fixture)\\.tsx?$' },
  to: { path: '^(core|contract|server|web|demo|e2e|benchmarks|scripts)/', pathNot: allowed },
});
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    only('core-alone', '^core/', '^core/', 'core imports nothing of the house'),
    { name: 'core-pure', severity: 'error', comment: 'core uses no Node and no framework', from: { path: '^core/', pathNot: '(\\.test|fixture)\\.ts$' }, to: { dependencyTypes: ['core'] } },
    { name: 'core-small-libraries', severity: 'error', from: { path: '^core/', pathNot: '(\\.test|fixture)\\.ts$' }, to: { path: 'node_modules', pathNot: 'node_modules/(culori|papaparse|luxon|ical-generator|@types/(culori|papaparse|luxon))' } },
    only('units-ground', '^core/units/', '^core/units/'),
    only('wood-ground', '^core/wood/', '^core/(units|wood)/'),
    only('solid-ground', '^core/solid/', '^core/(units|solid)/'),
    only('kit-ground', '^core/kit/', '^core/(units|wood|kit)/'),
    only('build-on-ground', '^core/build/', '^core/(units|wood|solid|kit|build)/'),
    only('stock-on-build', '^core/stock/', '^core/(units|wood|solid|kit|build|stock)/', 'solvers write steps and settings; nothing below knows them'),
    only('glueup-on-build', '^core/glueup/', '^core/(units|wood|solid|kit|build|glueup)/'),
    only('bench-on-glueup', '^core/bench/', '^core/(units|wood|solid|kit|build|glueup|bench)/'),
    only('picture-on-ground', '^core/picture/', '^core/(units|wood|solid|picture)/'),
    only('contract-on-core', '^contract/', '^(core|contract)/'),
    only('server-knows-no-web', '^server/', '^(core|contract|server|demo)/'),
    only('web-knows-no-server', '^web/', '^(core|contract|web)/'),
    only('demo-through-the-contract', '^demo/', '^(core|contract|demo)/'),
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: { doNotFollow: { path: 'node_modules' }, tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default', 'types'] } },
};
