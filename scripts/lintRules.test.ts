import { execFileSync } from 'node:child_process';

/** Wrong files that the folder rules must refuse: without this, a broken resolver would let all of them pass. */
const WRONG: readonly (readonly [name: string, filePath: string, code: string, rule: string])[] = [
  [
    'core imports React',
    'src/core/money/minor.ts',
    "import { useState } from 'react';\nexport const a = useState;\n",
    'no-restricted-imports',
  ],
  [
    'core imports the store',
    'src/core/money/minor.ts',
    "import { bookStore } from '@/store/bookStore';\nexport const a = bookStore;\n",
    'import/no-restricted-paths',
  ],
  [
    'money imports a later folder',
    'src/core/money/minor.ts',
    "import { monthCalendar } from '@/core/calendar';\nexport const a = monthCalendar;\n",
    'import/no-restricted-paths',
  ],
  [
    'a component imports the store',
    'src/components/theme.ts',
    "import { bookStore } from '@/store/bookStore';\nexport const a = bookStore;\n",
    'import/no-restricted-paths',
  ],
  [
    'a feature imports another',
    'src/features/books/words.ts',
    "import { BudgetScreen } from '@/features/budget/BudgetScreen';\nexport const a = BudgetScreen;\n",
    'import/no-restricted-paths',
  ],
  [
    'exceljs outside the file folders',
    'src/core/plan/order.ts',
    "import ExcelJS from 'exceljs';\nexport const a = ExcelJS;\n",
    'no-restricted-imports',
  ],
  [
    'core reads the clock',
    'src/core/plan/order.ts',
    'export const a = Date.now();\n',
    'no-restricted-syntax',
  ],
  ['core throws dice', 'src/core/plan/order.ts', 'export const a = Math.random();\n', 'no-restricted-syntax'],
  [
    'an import of nothing',
    'src/core/plan/order.ts',
    "import { b } from './nowhere';\nexport const a = b;\n",
    'import/no-unresolved',
  ],
];

const RIGHT = {
  filePath: 'src/core/plan/order.ts',
  code: "import { minor } from '@/core/money';\nexport const a = minor(1);\n",
};

let found: string[][];
beforeAll(() => {
  const texts = [...WRONG.map(([, filePath, code]) => ({ filePath, code })), RIGHT];
  const out = execFileSync('node', ['scripts/lintTexts.mjs'], {
    input: JSON.stringify(texts),
    encoding: 'utf8',
  });
  found = JSON.parse(out) as string[][];
}, 120000);

test.each(WRONG.map(([name, , , rule], i) => [name, rule, i] as const))('%s is refused', (_name, rule, i) => {
  expect(found[i]).toContain(rule);
});

test('a right file passes', () => expect(found[WRONG.length]).toEqual([]));
