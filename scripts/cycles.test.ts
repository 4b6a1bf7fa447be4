import { readdirSync, readFileSync } from 'node:fs';
import { cyclesIn } from './cycles';

/* No file of the program imports itself by way of others: the linter's own rule for it takes minutes over the whole tree. */

const of = (texts: Readonly<Record<string, string>>) => cyclesIn(new Map(Object.entries(texts)));

test('a circle is found, by alias, by path and by an index', () => {
  expect(
    of({
      'src/core/a/index.ts': "export { b } from './b';",
      'src/core/a/b.ts': "import { c } from '@/core/c';\nexport const b = c;",
      'src/core/c.ts': "import { b } from './a';\nexport const c = b;",
      'src/core/d.tsx': "import '@/core/a';",
    }),
  ).toEqual([['src/core/a', 'src/core/a/b', 'src/core/c', 'src/core/a']]);
});

test('types are no import, however they are written; one value among them is', () => {
  const other = "import { a } from './a';\nexport const b = a; export type B = 1;";
  for (const types of [
    "import type { B } from './b';",
    "import { type B } from './b';",
    "export type { B } from './b';",
  ])
    expect(of({ 'src/a.ts': `${types}\nexport const a = 1;`, 'src/b.ts': other })).toEqual([]);
  expect(
    of({ 'src/a.ts': "import { b, type B } from './b';\nexport const a: B = b;", 'src/b.ts': other }),
  ).toHaveLength(1);
});

test('the program has none', () => {
  const paths = (readdirSync('src', { recursive: true }) as string[])
    .filter((p) => /\.tsx?$/.test(p))
    .map((p) => `src/${p}`);
  const texts = new Map(paths.map((p) => [p, readFileSync(p, 'utf8')]));
  expect(texts.size).toBeGreaterThan(500);
  expect(cyclesIn(texts)).toEqual([]);
});
