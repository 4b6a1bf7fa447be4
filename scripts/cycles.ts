import { dirname, join } from 'node:path';
import ts from 'typescript';

/** The files, by their paths from the root without ending or index, that a text imports while it runs; types are no import. */
function importsOf(path: string, text: string): string[] {
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX);
  const out: string[] = [];
  for (const statement of file.statements) {
    if (!ts.isImportDeclaration(statement) && !ts.isExportDeclaration(statement)) continue;
    const from = statement.moduleSpecifier;
    if (!from || !ts.isStringLiteral(from)) continue;
    const named = ts.isImportDeclaration(statement)
      ? statement.importClause?.namedBindings
      : statement.exportClause;
    const wholly = ts.isImportDeclaration(statement)
      ? statement.importClause?.phaseModifier === ts.SyntaxKind.TypeKeyword
      : statement.isTypeOnly;
    const parts = named && (ts.isNamedImports(named) || ts.isNamedExports(named)) ? named.elements : null;
    const byName = ts.isImportDeclaration(statement) && statement.importClause?.name !== undefined;
    if (wholly || (!byName && parts && parts.length > 0 && parts.every((e) => e.isTypeOnly))) continue;
    if (from.text.startsWith('@/')) out.push(`src/${from.text.slice(2)}`);
    else if (from.text.startsWith('.')) out.push(join(dirname(path), from.text));
  }
  return out;
}

const bare = (path: string): string => path.replace(/\.tsx?$/, '').replace(/\/index$/, '');

/** Circles of files that import each other while they run, each told once, by paths in the order of the imports. */
export function cyclesIn(texts: ReadonlyMap<string, string>): string[][] {
  const files = new Map([...texts].map(([path, text]) => [bare(path), importsOf(path, text)]));
  const done = new Set<string>();
  const found: string[][] = [];
  const visit = (file: string, way: readonly string[]): void => {
    if (done.has(file)) return;
    const at = way.indexOf(file);
    if (at >= 0) {
      found.push([...way.slice(at), file]);
      return;
    }
    for (const next of files.get(file) ?? []) if (files.has(bare(next))) visit(bare(next), [...way, file]);
    done.add(file);
  };
  for (const file of files.keys()) visit(file, []);
  return found;
}
