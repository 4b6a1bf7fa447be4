import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { compile } from './compile.mjs';

/* Writes what ships beside the app and follows from the code: the demo's CSV files and its book, and the book file's JSON Schema. */
const out = compile(['src/core', 'src/demo']);
const { demoFiles } = await import(join(out, 'src/demo/files.js'));
const { demoBookFile } = await import(join(out, 'src/demo/demoBook.js'));
const { bookFileJsonSchema, layoutFileJsonSchema } = await import(
  join(out, 'src/core/exchange/bookSchema.js')
);

mkdirSync('public/demo', { recursive: true });
mkdirSync('public/schema', { recursive: true });
writeFileSync('public/demo/pellow-creek.tellan.json', await demoBookFile());
for (const { name, text } of demoFiles()) writeFileSync(`public/demo/${name}`, text);
for (const [name, schema] of [
  ['book', bookFileJsonSchema()],
  ['layout', layoutFileJsonSchema()],
])
  writeFileSync(`public/schema/tellan-${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`);
