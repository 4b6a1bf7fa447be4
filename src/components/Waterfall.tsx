'use client';

import { useCallback, useContext } from 'react';
import { Picture, type KeyEntry, type Token } from './Picture';
import { UnitContext } from './unit';
import { drawing, HEIGHT, type WaterfallStep } from './waterfallDrawing';

const KEYS: Readonly<Record<WaterfallStep['kind'], KeyEntry>> = {
  budget: { mark: 'outlined', label: 'Budget' },
  actual: { mark: 'solid', label: 'Actual' },
  outlook: { mark: 'hatched', label: 'Outlook' },
  good: { mark: 'good', label: 'F: helps profit' },
  bad: { mark: 'bad', label: 'U: hurts it' },
};

/** A chart that leads from one result to another. */
export function Waterfall({
  steps,
  label,
  fileName,
  names = {},
}: {
  /** What the marks mean, where they mean something else than beside a budget. */
  readonly names?: Partial<Record<WaterfallStep['kind'], string>>;
  readonly steps: readonly WaterfallStep[];
  readonly label: string;
  readonly fileName: string;
}) {
  const unit = useContext(UnitContext);
  const draw = useCallback((token: Token) => drawing(steps, token), [steps]);
  const kinds = new Set(steps.map((s) => s.kind));
  return (
    <Picture
      label={unit ? `${label}, ${unit}` : label}
      draw={draw}
      height={HEIGHT}
      fileName={fileName}
      keys={(Object.keys(KEYS) as WaterfallStep['kind'][])
        .filter((k) => kinds.has(k))
        .map((k) => ({ ...KEYS[k], label: names[k] ?? KEYS[k].label }))}
      table={{ head: ['Step', 'Amount'], rows: steps.map((s) => [s.label, s.text]) }}
    />
  );
}
