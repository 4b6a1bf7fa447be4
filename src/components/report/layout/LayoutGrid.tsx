'use client';

import { useMemo, useState, type ReactNode } from 'react';
import { rangeLabel, type PeriodRange } from '@/core/calendar';
import { unitsOf, type ReportRow, type ReportTable, type Compared } from '@/core/report';
import type { Ground } from '@/core/ground';
import type { Layout } from '@/core/model';
import { ReportGrid, type ReportGridProps } from '../ReportGrid';
import stage from '../../Stage.module.css';
import { ColumnHead } from './ColumnHead';
import type { LayoutInUse } from './inUse';
import { OwnRow } from './OwnRow';
import { RowsPanel } from './RowsPanel';

/** A layout's report as a grid whose heads change the layout. */
export function LayoutGrid({
  ground,
  inUse,
  compared,
  ruler,
  table,
  rowEnd,
  ...grid
}: {
  readonly ground: Ground;
  readonly inUse: LayoutInUse;
  readonly compared: Compared;
  /** What is chosen on the ruler. */
  readonly ruler: PeriodRange;
  readonly table: ReportTable;
  /** What stands at the end of a row's name where the row is not one of someone's own. */
  readonly rowEnd?: (row: ReportRow) => ReactNode;
} & Pick<ReportGridProps, 'label' | 'text' | 'exact' | 'percent' | 'at' | 'onAt' | 'onOpen' | 'onKey'>) {
  const { layout } = inUse;
  const { calendar, book } = ground;
  const [headVersion, setHeadVersion] = useState(0);
  const setColumns = (columns: Layout['columns'], moved: boolean) => {
    inUse.change({ columns });
    if (moved) setHeadVersion((v) => v + 1);
  };
  const units = useMemo(
    () => unitsOf(ground, compared.comparison).map((u) => u.name),
    [ground, compared.comparison],
  );
  if (table.tooWide !== undefined)
    return (
      <p className={stage.fill} role="alert">
        This layout asks for {table.tooWide.toLocaleString(book.locale)} columns, which nobody can read: fewer
        of its segments, shorter spans, or weeks in place of days. Nothing was made of it.
      </p>
    );
  const [first, last] = [calendar.period(ruler.first), calendar.period(ruler.last)];
  return (
    <div
      className={stage.fill}
      data-red={layout.numbers.red === 'red' || undefined}
      data-plain={layout.numbers.red === 'plain' || undefined}
    >
      <ReportGrid
        {...grid}
        table={table}
        corner={
          <RowsPanel
            ground={ground}
            layout={layout}
            onRows={inUse.changeRows}
            onColumns={(columns) => setColumns(columns, true)}
          />
        }
        headVersion={headVersion}
        head={(c, id) => (
          <ColumnHead
            id={id}
            column={c}
            layout={layout}
            units={units}
            range={
              first === last
                ? null
                : {
                    span: { of: 'range', first: first.id, last: last.id },
                    label: rangeLabel(calendar, ruler),
                  }
            }
            onColumns={setColumns}
          />
        )}
        rowEnd={(r) =>
          layout.rows.own.length > 0 && typeof r.own === 'number' && r.key === grid.at?.row ? (
            <OwnRow
              own={layout.rows.own}
              place={r.own}
              accounts={book.accounts}
              onOwn={(own) => inUse.changeRows({ own })}
            />
          ) : (
            (rowEnd?.(r) ?? null)
          )
        }
      />
    </div>
  );
}
