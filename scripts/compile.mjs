import { transformFileSync } from '@swc/core';
import { mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';

/*
 * Compiles TypeScript for Node to run as it stands, module by module, into .cache/node. Native ES modules, so that
 * what the bench measures is the code and not a loader's wrapping of it.
 */
const OUT = resolve('.cache/node');

function files(folder) {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.ts$/.test(name) && !/\.(test|d)\.ts$/.test(name) ? [path] : [];
  });
}

/** Where an import leads, as a relative path with its ending; packages stay as they are. */
function resolved(specifier, from, known) {
  const base = specifier.startsWith('@/')
    ? join('src', specifier.slice(2))
    : specifier.startsWith('.')
      ? join(dirname(from), specifier)
      : null;
  if (base === null) return specifier;
  const found = [`${base}.ts`, join(base, 'index.ts')].find((p) => known.has(p));
  if (!found) throw new Error(`${from}: cannot resolve ${specifier}`);
  const path = relative(dirname(from), found).replace(/\.ts$/, '.js');
  return path.startsWith('.') ? path : `./${path}`;
}

/** Compiles these folders; gives where the output stands. */
export function compile(folders) {
  rmSync(OUT, { recursive: true, force: true });
  const list = folders.flatMap(files);
  const known = new Set(list);
  for (const file of list) {
    const { code } = transformFileSync(file, {
      jsc: { target: 'es2022', parser: { syntax: 'typescript' } },
      module: { type: 'es6' },
    });
    const text = code.replace(
      /((?:from|import)\s*\(?\s*)(['"])([^'"]+)\2/g,
      (_all, lead, quote, specifier) => `${lead}${quote}${resolved(specifier, file, known)}${quote}`,
    );
    const out = join(OUT, file.replace(/\.ts$/, '.js'));
    mkdirSync(dirname(out), { recursive: true });
    writeFileSync(out, text);
  }
  writeFileSync(join(OUT, 'package.json'), '{"type":"module"}');
  return OUT;
}
