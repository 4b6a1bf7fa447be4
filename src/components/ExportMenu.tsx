'use client';

import { Button } from '@mantine/core';
import type { MenuEntry } from './Opened';
import { MenuButton } from './Opens';

/** The export button of a screen. A screen that has more to export than its table says so in between. */
export const ExportMenu = ({
  onCsv,
  onXlsx,
  xlsx = 'Workbook (XLSX), with formulas',
  csv = 'Plain table (CSV)',
  more = [],
}: {
  readonly onCsv: () => void;
  readonly onXlsx: () => void;
  readonly xlsx?: string;
  readonly csv?: string;
  readonly more?: readonly MenuEntry[];
}) => (
  <MenuButton
    position="bottom-end"
    button={<Button>Export ▾</Button>}
    entries={[{ label: xlsx, run: onXlsx }, ...more, { label: csv, run: onCsv }]}
  />
);

/** The ways a report leaves as a document to print. */
export const documents = (
  run: (paper: 'A4' | 'Letter') => void,
  what = 'Document (PDF)',
): readonly MenuEntry[] =>
  (['A4', 'Letter'] as const).map((paper) => ({
    label: `${what}, ${paper === 'A4' ? 'A4' : 'US Letter'}`,
    run: () => run(paper),
  }));
