'use client';

import { memo } from 'react';
import { Button, NativeSelect, Radio, SegmentedControl, Switch } from '@mantine/core';
import type { Budget } from '@/core/model';
import { MenuButton, PanelButton } from '@/components/Opens';
import { TOOLS, type Tool } from '../edit/commands';
import { INFOS, LEADS, moveIn, setSetup, toggleIn, type Info, type Setup, type SheetGrain } from './setup';
import classes from '../Budget.module.css';

const GRAINS: readonly { readonly value: SheetGrain; readonly label: string }[] = [
  { value: 'months', label: 'Months' },
  { value: 'beside', label: 'Two years' },
  { value: 'quarters', label: 'Quarters' },
  { value: 'year', label: 'Years' },
];

const COLUMN_WORDS: Record<(typeof LEADS)[number] | Info, string> = {
  badge: 'How it is made',
  picture: 'A small picture',
  keeper: 'Who looks after it',
  change: 'Change on last year',
  changePercent: 'Change in percent',
  lastYear: 'Last year',
  yearBefore: 'The year before',
  share: 'Share of income',
};

type SheetToolsProps = {
  readonly setup: Setup;
  /** Other budgets, which the quiet rows may show. */
  readonly budgets: readonly Pick<Budget, 'id' | 'name'>[];
  readonly readOnly: boolean;
  readonly onGrain: (grain: SheetGrain) => void;
  readonly onTool: (tool: Tool) => void;
  readonly onCopy: () => void;
  readonly onLook: () => void;
  readonly onNote: () => void;
};

/** Of other budgets only their names are shown: an edit of the budget in hand is no reason to draw the tools again. */
const sameTools = (a: SheetToolsProps, b: SheetToolsProps): boolean =>
  (Object.keys(a) as (keyof SheetToolsProps)[]).every((k) =>
    k === 'budgets'
      ? a.budgets.length === b.budgets.length &&
        a.budgets.every((x, i) => x.id === b.budgets[i]!.id && x.name === b.budgets[i]!.name)
      : a[k] === b[k],
  );

/** The tools over the sheet: its columns, what works on the selection, and how it is shown. */
export const SheetTools = memo(function SheetTools({
  setup,
  budgets,
  readOnly,
  onGrain,
  onTool,
  onCopy,
  onLook,
  onNote,
}: SheetToolsProps) {
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="Columns"
        value={setup.grain}
        onChange={(grain) => onGrain(grain as SheetGrain)}
        data={GRAINS as { value: string; label: string }[]}
      />
      <MenuButton
        width={320}
        button={<Button>Selection ▾</Button>}
        entries={[
          ...TOOLS.map((t) => ({
            key: t.id,
            label: t.name,
            disabled: readOnly,
            aside: <kbd>{t.key}</kbd>,
            run: () => onTool(t),
          })),
          {
            label: 'Copy from other months or a budget…',
            disabled: readOnly,
            aside: <kbd>Alt C</kbd>,
            run: onCopy,
          },
          'line',
          { label: 'Mark as looked at, or not', aside: <kbd>Alt L</kbd>, run: onLook },
          { label: 'Write a note', aside: <kbd>Alt N</kbd>, run: onNote },
        ]}
      />
      <PanelButton width={360} button={<Button>View ▾</Button>}>
        <div className="label">Before the figures</div>
        <Columns all={LEADS} chosen={setup.lead} onChange={(lead) => setSetup({ lead })} />
        <div className="label" style={{ marginTop: 10 }}>
          After the total
        </div>
        <Columns all={INFOS} chosen={setup.info} onChange={(info) => setSetup({ info })} />
        <Radio.Group
          label="The quiet row beneath"
          mt={10}
          value={setup.ghosts}
          onChange={(ghosts) => setSetup({ ghosts: ghosts as Setup['ghosts'] })}
        >
          <div className={classes.radios}>
            <Radio size="xs" value="selected" label="the selected line" />
            <Radio size="xs" value="all" label="every line" />
            <Radio size="xs" value="none" label="none" />
          </div>
        </Radio.Group>
        <NativeSelect
          mt={6}
          aria-label="It shows"
          disabled={setup.ghosts === 'none'}
          value={setup.ghostOf}
          data={[
            { value: 'lastYear', label: 'last year’s actuals' },
            { value: 'outlook', label: 'the outlook' },
            ...budgets.map((b) => ({ value: b.id, label: b.name })),
          ]}
          onChange={(e) => setSetup({ ghostOf: e.currentTarget.value })}
        />
        <Switch
          mt={12}
          size="xs"
          label="Costs first, income last"
          checked={setup.costsFirst}
          onChange={(e) => setSetup({ costsFirst: e.currentTarget.checked })}
        />
        <Switch
          mt={8}
          size="xs"
          label="The sheet takes the whole window (Alt W)"
          checked={setup.wholeWindow}
          onChange={(e) => setSetup({ wholeWindow: e.currentTarget.checked })}
        />
      </PanelButton>
    </>
  );
}, sameTools);

/** Columns chosen and put in order. */
function Columns<T extends (typeof LEADS)[number] | Info>({
  all,
  chosen,
  onChange,
}: {
  readonly all: readonly T[];
  readonly chosen: readonly T[];
  readonly onChange: (chosen: T[]) => void;
}) {
  const rest = all.filter((c) => !chosen.includes(c));
  return (
    <ul className={classes.columnList}>
      {[...chosen, ...rest].map((c) => {
        const on = chosen.includes(c);
        return (
          <li key={c}>
            <label>
              <input type="checkbox" checked={on} onChange={() => onChange(toggleIn(chosen, c))} />
              {COLUMN_WORDS[c]}
            </label>
            {on && chosen.length > 1 && (
              <span>
                {([-1, 1] as const).map((step) => (
                  <button
                    key={step}
                    type="button"
                    aria-label={`${COLUMN_WORDS[c]} ${step < 0 ? 'earlier' : 'later'}`}
                    onClick={() => onChange(moveIn(chosen, c, step))}
                  >
                    {step < 0 ? '↑' : '↓'}
                  </button>
                ))}
              </span>
            )}
          </li>
        );
      })}
    </ul>
  );
}
