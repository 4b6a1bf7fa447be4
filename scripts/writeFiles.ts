import { mkdirSync, writeFileSync } from 'node:fs';
import { bookFileJsonSchema } from '@/core/exchange';
import { demoFiles } from '@/demo/files';

/** Writes what ships beside the app and follows from the code: the demo's CSV files and the book file's JSON Schema. */
mkdirSync('public/demo', { recursive: true });
mkdirSync('public/schema', { recursive: true });
for (const { name, text } of demoFiles()) writeFileSync(`public/demo/${name}`, text);
writeFileSync('public/schema/tellan-book.schema.json', `${JSON.stringify(bookFileJsonSchema(), null, 2)}\n`);
