import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** Every source file that may name a class of a stylesheet. */
const sources = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .map((f) => join('src', f))
  .filter((f) => /\.tsx?$/.test(f));

/** A class that a stylesheet does not have is no error anywhere: the screen only looks wrong. */
test('every class that a screen names stands in its stylesheet', () => {
  const missing: string[] = [];
  let named = 0;
  for (const file of sources) {
    const text = readFileSync(file, 'utf8');
    for (const [, name, from] of text.matchAll(/import (\w+) from '([^']+\.module\.css)'/g)) {
      const sheet = from!.startsWith('@/') ? join('src', from!.slice(2)) : join(dirname(file), from!);
      if (!existsSync(sheet)) {
        missing.push(`${file}: ${sheet}`);
        continue;
      }
      const has = new Set([...readFileSync(sheet, 'utf8').matchAll(/\.([A-Za-z][\w-]*)/g)].map((m) => m[1]));
      for (const [, used] of text.matchAll(new RegExp(`\\b${name}\\.(\\w+)`, 'g'))) {
        named++;
        if (!has.has(used)) missing.push(`${file}: ${used}`);
      }
    }
  }
  expect(missing).toEqual([]);
  expect(named).toBeGreaterThan(300);
});
