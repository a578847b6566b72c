/**
 * Counts what docs/how-it-works.md says of the house, on the syntax tree with types: places that branch on a step's
 * kind, functions of many positional parameters, circles of imports (type imports too), and doc comments of exported
 * functions. `node scripts/counts.mjs [--list]`
 */
import { readdirSync, statSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import ts from 'typescript';

const ROOT = resolve(import.meta.dirname, '..');
const FOLDERS = ['core', 'contract', 'server', 'web', 'demo'];
const LIST = process.argv.includes('--list');
/** Where a step's kind may be asked for: the rooms themselves, and those of glue. */
const ROOMS = /^(core\/(steps|glueup|layup)|web\/screens\/job\/glue)\//;

const files = FOLDERS.flatMap(function walk(folder) {
  return readdirSync(join(ROOT, folder)).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(join(ROOT, path)).isDirectory()) return walk(path);
    return /\.tsx?$/.test(name) && !/\.(test|fixture|spec|d)\.tsx?$/.test(name) && name !== 'fixture.ts'
      ? [path]
      : [];
  });
});
const config = ts.readConfigFile(join(ROOT, 'tsconfig.json'), ts.sys.readFile).config;
const { options } = ts.parseJsonConfigFileContent(config, ts.sys, ROOT);
const program = ts.createProgram(
  files.map((file) => join(ROOT, file)),
  { ...options, noEmit: true },
);
const checker = program.getTypeChecker();

/** The kinds of step, read from the type that names them. */
const kinds = (() => {
  for (const file of files) {
    const source = program.getSourceFile(join(ROOT, file));
    const symbol = source && checker.getSymbolAtLocation(source);
    const own = symbol && checker.getExportsOfModule(symbol).find(({ name }) => name === 'StepKind');
    if (!own) continue;
    const target = own.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(own) : own;
    const type = checker.getDeclaredTypeOfSymbol(target);
    return new Set((type.isUnion() ? type.types : [type]).map((each) => each.value));
  }
  throw new Error('counts: no type StepKind');
})();
const parts = (type) => (type.isUnion() ? type.types : [type]);
const isKind = (type) => {
  const own = parts(type).filter((each) => !(each.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)));
  return own.length > 0 && own.every((each) => each.isStringLiteral?.() && kinds.has(each.value));
};
const isStep = (type) => {
  const own = parts(type).filter((each) => !(each.flags & (ts.TypeFlags.Undefined | ts.TypeFlags.Null)));
  return (
    own.length > 0 &&
    own.every((each) => {
      const kind = each.getProperty?.('kind');
      return (
        kind &&
        each.getProperty('inputs') &&
        each.getProperty('output') &&
        isKind(checker.getTypeOfSymbol(kind))
      );
    })
  );
};
/** Whether an expression is the kind of a step: by its type, and not a literal itself. */
const asksKind = (node) => !ts.isStringLiteral(node) && isKind(checker.getTypeAtLocation(node));

/** How many questions about a step's kind a node is. */
function branches(node) {
  if (ts.isBinaryExpression(node)) {
    const { operatorToken, left, right } = node;
    if (
      [ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken].includes(
        operatorToken.kind,
      )
    )
      return asksKind(left) !== asksKind(right) || (asksKind(left) && asksKind(right)) ? 1 : 0;
    if (operatorToken.kind === ts.SyntaxKind.InKeyword)
      return isStep(checker.getTypeAtLocation(right)) ? 1 : 0;
  }
  if (ts.isSwitchStatement(node)) return asksKind(node.expression) ? node.caseBlock.clauses.length : 0;
  if (ts.isElementAccessExpression(node)) return asksKind(node.argumentExpression) ? 1 : 0;
  if (ts.isCallExpression(node)) {
    const name = ts.isPropertyAccessExpression(node.expression) ? node.expression.name.text : '';
    if (['includes', 'has', 'get'].includes(name) && node.arguments[0] && asksKind(node.arguments[0]))
      return 1;
    const signature = checker.getResolvedSignature(node);
    const predicate = signature && checker.getTypePredicateOfSignature(signature);
    if (predicate?.type && isStep(predicate.type)) return 1;
  }
  if (ts.isObjectLiteralExpression(node)) {
    const names = node.properties.map((each) => each.name?.getText().replaceAll(/['"]/g, ''));
    return names.length > 2 && names.every((name) => kinds.has(name)) ? 1 : 0;
  }
  return 0;
}

/** Whether a call goes to one of the ways that lead to steps of one kind. */
function isWay(node) {
  if (!ts.isCallExpression(node) || !ts.isIdentifier(node.expression)) return false;
  const symbol = checker.getSymbolAtLocation(node.expression);
  const target = symbol && symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  return target?.declarations?.[0]?.getSourceFile().fileName.endsWith('core/steps/find.ts') ?? false;
}

let ways = 0;
const places = new Map();
const wide = [];
const documented = [];
const edges = new Map();
for (const file of files) {
  const source = program.getSourceFile(join(ROOT, file));
  const at = (node) => `${file}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}`;
  const targets = new Set();
  (function visit(node) {
    const n = branches(node);
    if (n > 0)
      for (let i = 0; i < n; i++) (places.get(file) ?? places.set(file, []).get(file)).push(at(node));
    if (!ROOMS.test(file) && isWay(node)) ways += 1;
    if (ts.isFunctionLike(node) && node.body && node.parameters.length >= 5) wide.push(at(node));
    if ((ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) && node.moduleSpecifier) {
      const found = ts.resolveModuleName(
        node.moduleSpecifier.text,
        join(ROOT, file),
        options,
        ts.sys,
      ).resolvedModule;
      if (found && !found.isExternalLibraryImport) targets.add(relative(ROOT, found.resolvedFileName));
    }
    ts.forEachChild(node, visit);
  })(source);
  edges.set(file, targets);
  for (const statement of source.statements) {
    const exported =
      ts.canHaveModifiers(statement) &&
      ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
    if (!exported) continue;
    const callable =
      ts.isFunctionDeclaration(statement) ||
      (ts.isVariableStatement(statement) &&
        statement.declarationList.declarations.some(
          ({ initializer }) => initializer && ts.isArrowFunction(initializer),
        ));
    if (!callable) continue;
    const words = ts
      .getJSDocCommentsAndTags(statement)
      .map((each) => each.getText())
      .join(' ');
    documented.push({ at: at(statement), words });
  }
}

/** Circles by Tarjan: groups of files that reach each other. */
function circles() {
  let index = 0;
  const [order, low, stack, groups] = [new Map(), new Map(), [], []];
  const strong = (file) => {
    order.set(file, index);
    low.set(file, index++);
    stack.push(file);
    for (const next of edges.get(file) ?? []) {
      if (!edges.has(next)) continue;
      if (!order.has(next)) {
        strong(next);
        low.set(file, Math.min(low.get(file), low.get(next)));
      } else if (stack.includes(next)) low.set(file, Math.min(low.get(file), order.get(next)));
    }
    if (low.get(file) !== order.get(file)) return;
    const group = [];
    do group.push(stack.pop());
    while (group.at(-1) !== file);
    if (group.length > 1) groups.push(group);
  };
  for (const file of edges.keys()) if (!order.has(file)) strong(file);
  return groups;
}

const all = [...places.values()].flat();
const outside = [...places].filter(([file]) => !ROOMS.test(file));
const groups = circles();
const lines = [
  ['places that branch on a step’s kind', all.length],
  ['  in so many files', places.size],
  ['  of these outside the rooms', outside.flatMap(([, list]) => list).length],
  ['  in so many files', outside.length],
  ['calls outside the rooms of the ways to steps of one kind', ways],
  ['circles of imports, types counted', groups.length],
  ['  files in them', groups.flat().length],
  ['functions of five or more positional parameters', wide.length],
  ['exported functions', documented.length],
  ['  with a doc comment', documented.filter(({ words }) => words).length],
];
for (const [name, n] of lines) console.log(`${String(n).padStart(6)}  ${name}`);
if (LIST) {
  for (const [file, list] of outside)
    console.log(`kind: ${file} ${list.map((each) => each.split(':')[1]).join(' ')}`);
  for (const group of groups) console.log(`circle: ${group.join(' ')}`);
  for (const each of wide) console.log(`wide: ${each}`);
}
