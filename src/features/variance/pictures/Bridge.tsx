'use client';

import { useMemo } from 'react';
import type { FiscalCalendar } from '@/core/calendar';
import type { Minor } from '@/core/money';
import { cellOf } from '@/core/report';
import type { Account } from '@/core/model';
import { bridgeOf, effectOf } from '@/core/variance';
import { Waterfall } from '@/components/Waterfall';
import type { WaterfallStep } from '@/components/waterfallDrawing';
import type { MoneyFormat } from '@/store/format';
import { runsLabel } from '@/store/layoutWords';
import type { MonthFacts } from '@/store/monthFacts';

/** The way from the budgeted net profit to the actual one, or the year's to its outlook, by the lines that moved it most. */
export function Bridge({
  facts: { table, net },
  against,
  block,
  money,
  accounts,
  calendar,
  label,
}: {
  readonly facts: MonthFacts;
  /** What it begins with: the budget, or what stands in its place. */
  readonly against: string;
  readonly block: 'month' | 'toDate' | 'year';
  readonly money: MoneyFormat;
  readonly accounts: readonly Account[];
  readonly calendar: FiscalCalendar;
  readonly label: string;
}) {
  const steps = useMemo((): readonly WaterfallStep[] => {
    const kinds = new Map(accounts.map((a) => [a.id, a.kind]));
    if (!net || net.key !== 'netProfit' || cellOf(table, net, `${block}Diff`) === null) return [];
    const parts = table.rows.flatMap((r) => {
      const d = cellOf(table, r, `${block}Diff`) as Minor | null;
      const effect = r.kind === 'line' && r.account ? effectOf(kinds.get(r.account)!) : 0;
      return d && effect ? [{ key: r.key, label: r.label, effect: (d * effect) as Minor }] : [];
    });
    const bridge = bridgeOf((cellOf(table, net, `${block}Budget`) ?? 0) as Minor, parts, 8);
    const step = (name: string, value: Minor): WaterfallStep => ({
      label: name,
      value,
      kind: value >= 0 ? 'good' : 'bad',
      text: `${money.signed(value)} ${value >= 0 ? 'F' : 'U'}`,
    });
    return [
      { label: against, value: bridge.budget, kind: 'budget', text: money.text(bridge.budget) },
      ...bridge.parts.map((p) => step(p.label, p.effect)),
      ...(bridge.others !== 0 ? [step('All others', bridge.others)] : []),
      {
        label: block === 'year' ? 'Outlook' : 'Actual',
        value: bridge.actual,
        kind: block === 'year' ? 'outlook' : 'actual',
        text: money.text(bridge.actual),
      },
    ];
  }, [table, net, block, accounts, money, against]);
  const compared = table.columns.find((c) => c.key === `${block}Diff`);
  const words =
    block === 'month'
      ? label
      : `${compared?.group ?? ''}${compared?.only ? `, of ${runsLabel(calendar, compared.only)}` : ''}`;
  return steps.length === 0 ? null : (
    <Waterfall
      steps={steps}
      label={`Net profit, from ${against.toLowerCase()} to ${block === 'year' ? 'outlook' : 'actual'}, ${words}`}
      fileName={`Net profit ${words}`}
    />
  );
}
