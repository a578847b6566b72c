/** Reads the findings off the code that raises them: their declarations, for docs/findings.md. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import ts from 'typescript';

/** A finding as it is declared where it is raised. */
export interface DeclaredFinding {
  code: string;
  words: string;
  file: string;
}

const walk = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = `${folder}/${name}`;
    if (statSync(path).isDirectory()) return walk(path);
    return /\.ts$/.test(name) && !/\.(test|fixture)\.ts$/.test(name) ? [path] : [];
  });

/** Every finding that is declared in core, by its code, with its words and the file that raises it. */
export function declaredFindings(): DeclaredFinding[] {
  const found: DeclaredFinding[] = [];
  for (const file of walk('core')) {
    const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
    (function visit(node: ts.Node): void {
      if (ts.isInterfaceDeclaration(node) && node.name.text === 'FindingCodes')
        for (const member of node.members) {
          const words = ts
            .getJSDocCommentsAndTags(member)
            .map((each) => (typeof each.comment === 'string' ? each.comment : ''))
            .join(' ');
          if (member.name && ts.isStringLiteral(member.name))
            found.push({ code: member.name.text, words, file });
        }
      ts.forEachChild(node, visit);
    })(source);
  }
  return found.toSorted((a, b) => (a.code < b.code ? -1 : 1));
}

/** The findings as a table in Markdown. */
export const findingTable = (): string =>
  [
    '| code | what it says | raised in |',
    '| --- | --- | --- |',
    ...declaredFindings().map(({ code, words, file }) => `| \`${code}\` | ${words} | \`${file}\` |`),
  ].join('\n');
