'use client';

import { Button, Checkbox, Group, NativeSelect, Stack } from '@mantine/core';
import type { Ground } from '@/core/ground';
import { SECTION_KINDS, type Layout, type SectionKind } from '@/core/model';
import { asOwnRows, ROW_NAMES } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import classes from '../ReportGrid.module.css';
import { SHOW_NAMES } from './showNames';

const SETS: Readonly<Record<Layout['rows']['set'], string>> = {
  profitAndLoss: 'Profit and loss',
  balanceSheet: 'Balance sheet',
  both: 'Profit and loss, then balances',
  budget: 'What the budget covers',
  ledger: 'The ledger: what moved in every account',
  profitStatement: 'Profit and loss, closed and ahead',
  balanceStatement: 'Balance sheet, closed and ahead',
  cashFlow: 'Cash flow, from profit',
  cashFlowDirect: 'Cash flow, by whom',
  cash: 'Cash by source',
  units: 'Units of drivers',
};
/** Sets whose rows are no accounts of a chart. */
const NO_ACCOUNTS: ReadonlySet<Layout['rows']['set']> = new Set([
  'cash',
  'units',
  'cashFlow',
  'cashFlowDirect',
]);
const DETAIL = { account: 'Each account', group: 'Groups', kind: 'Kinds alone' };
const ORDER = { incomeFirst: 'Income first', incomeLast: 'Income last' };
const SORT = { chart: 'As the chart of accounts', size: 'Largest variance first' };
const data = (names: Readonly<Record<string, string>>) =>
  Object.entries(names).map(([value, label]) => ({ value, label }));

/** The head of the names: which rows there are, how far they are told apart, and in which order. */
export function RowsPanel({
  ground,
  layout,
  onRows,
  onColumns,
}: {
  readonly ground: Ground;
  readonly layout: Layout;
  readonly onRows: (change: Partial<Layout['rows']>) => void;
  readonly onColumns: (columns: Layout['columns']) => void;
}) {
  const { rows } = layout;
  const own = rows.own.length > 0;
  const ofAccounts = !NO_ACCOUNTS.has(rows.set);
  const hidden = layout.columns.flatMap((c, place) => (c.hidden ? [{ c, place }] : []));
  const toggle = (kind: SectionKind, on: boolean) => {
    const now = rows.kinds.length === 0 ? [...SECTION_KINDS] : rows.kinds;
    const next = on ? [...now, kind] : now.filter((k) => k !== kind);
    onRows({ kinds: next.length === SECTION_KINDS.length ? [] : next });
  };
  const there = SECTION_KINDS.filter((k) => k !== 'assets' && k !== 'liabilities' && k !== 'equity');
  return (
    <PanelButton
      width={286}
      button={
        <button type="button" className={classes.headButton} aria-label="Rows: change which there are">
          Rows ▾
        </button>
      }
    >
      <Stack gap={6}>
        <NativeSelect
          label="Rows of"
          value={rows.set}
          data={data(SETS)}
          onChange={(e) => onRows({ set: e.currentTarget.value as Layout['rows']['set'], own: [] })}
        />
        {ofAccounts && (
          <>
            <NativeSelect
              label="Told apart by"
              value={rows.detail}
              data={data(DETAIL)}
              onChange={(e) => onRows({ detail: e.currentTarget.value as Layout['rows']['detail'] })}
            />
            <NativeSelect
              label="Order"
              value={rows.sort}
              data={data(SORT)}
              onChange={(e) => onRows({ sort: e.currentTarget.value as Layout['rows']['sort'] })}
            />
            {!own && (
              <NativeSelect
                aria-label="Where income stands"
                value={rows.order}
                data={data(ORDER)}
                onChange={(e) => onRows({ order: e.currentTarget.value as Layout['rows']['order'] })}
              />
            )}
            {!own && rows.set !== 'balanceSheet' && (
              <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
                <legend className="label">Kinds</legend>
                {there.map((kind) => (
                  <Checkbox
                    key={kind}
                    size="xs"
                    label={ROW_NAMES[kind]}
                    checked={rows.kinds.length === 0 || rows.kinds.includes(kind)}
                    onChange={(e) => toggle(kind, e.currentTarget.checked)}
                  />
                ))}
                <Button mt={4} onClick={() => onRows({ kinds: ['costOfSales', 'expense', 'otherExpense'] })}>
                  Costs alone
                </Button>
              </fieldset>
            )}
            {own ? (
              <Button onClick={() => onRows({ own: [] })}>The statement’s rows again</Button>
            ) : (
              <Button onClick={() => onRows({ own: asOwnRows(rows, ground.book.accounts), kinds: [] })}>
                Put the rows together myself
              </Button>
            )}
          </>
        )}
        {hidden.length > 0 && (
          <div>
            <div className="label">Columns that are hidden</div>
            <Group gap={4}>
              {hidden.map(({ c, place }) => (
                <Button
                  key={place}
                  onClick={() =>
                    onColumns(layout.columns.map((x, i) => (i === place ? { ...x, hidden: false } : x)))
                  }
                >
                  Show {SHOW_NAMES[c.show].toLowerCase()}
                </Button>
              ))}
            </Group>
          </div>
        )}
      </Stack>
    </PanelButton>
  );
}
