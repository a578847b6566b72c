/**
 * The way through the house: core → contract → server and web, and within core from the ground up. Nothing below knows
 * what stands above it; type imports count, and circles are forbidden with them.
 */
const TESTS = '\\.(test|spec|fixture)\\.tsx?$|/fixture\\.ts$';
const only = (name, from, allowed, comment) => ({
  name, severity: 'error', comment,
  from: { path: from, pathNot: TESTS },
  to: { path: '^(core|contract|server|web|demo|e2e|benchmarks|scripts)/', pathNot: allowed },
});
/** Rooms of core from the ground up: each may import those before it and itself. */
const STOREYS = ['units', 'wood', 'curve', 'solid', 'picture', 'kit', 'document', 'steps', 'run', 'shaping', 'sizes', 'plan', 'edit', 'stock', 'glueup', 'layup', 'bench', 'cost', 'log', 'review', 'clearing', 'recovery', 'notes', 'view', 'exchange'];
/** Layers of web from the ground up, likewise. */
const LAYERS = ['workers', 'app', 'parts', 'drawing', 'screens'];
const storeys = (folder, names, also) =>
  names.map((name, i) => only(`${folder}-${name}`, `^${folder}/${name}/`, `^(${also}${folder}/(${names.slice(0, i + 1).join('|')}))/`, `${name} knows only what stands below it`));
module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'core-pure', severity: 'error', comment: 'core uses no Node and no framework', from: { path: '^core/', pathNot: TESTS }, to: { dependencyTypes: ['core'] } },
    { name: 'core-small-libraries', severity: 'error', from: { path: '^core/', pathNot: TESTS }, to: { path: 'node_modules', pathNot: 'node_modules/(culori|papaparse|luxon|ical-generator|dxf-parser|svgpath|fast-xml-parser|@types/(culori|papaparse|luxon))' } },
    only('core-alone', '^core/', '^core/', 'core imports nothing of the house'),
    ...storeys('core', STOREYS, ''),
    only('contract-on-core', '^contract/', '^(core|contract)/'),
    only('server-knows-no-web', '^server/', '^(core|contract|server)/', 'the demo is not the server’s: it comes in as a file'),
    only('web-knows-no-server', '^web/', '^(core|contract|web)/'),
    ...storeys('web', LAYERS, 'core|contract|'),
    only('demo-through-the-contract', '^demo/', '^(core|contract|demo)/'),
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: { doNotFollow: { path: 'node_modules' }, tsPreCompilationDeps: true, tsConfig: { fileName: 'tsconfig.json' }, enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default', 'types'] } },
};
