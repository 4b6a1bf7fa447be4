'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { editText, type Minor } from '@/core/money';
import { fiscalYearLabel, periodsOf } from '@/core/calendar';
import type { Budget } from '@/core/model';
import { budgetReport, type Grain } from '@/core/report';
import { at, rectOf, type Rect, type Selection } from '@/core/sheet';
import { ExportMenu } from '@/components/ExportMenu';
import { StageHead } from '@/components/StageHead';
import stage from '@/components/Stage.module.css';
import { SheetView } from '@/components/sheet/SheetView';
import type { CellFormat } from '@/components/sheet/SheetRowView';
import { dispatch, useBookStore } from '@/store/bookStore';
import { reckoned, rulerRange, useOpenGround } from '@/store/derived';
import { exportCsv, exportXlsx } from '@/store/exports';
import { dayText, moneyFormat } from '@/store/format';
import { say, setSession } from '@/store/session';
import { BudgetMenu } from './BudgetMenu';
import {
  clearEdit,
  countAndSum,
  fillEdit,
  pasteEdit,
  restoreEdit,
  typeEdit,
  type Edit,
  type EditContext,
} from './edits';
import { ReasoningPanel } from './ReasoningPanel';
import { methodBadge } from './words';
import { createFillers, worksheet } from './worksheetRows';

const STATE_WORDS: Record<Budget['state'], string> = {
  draft: 'Draft',
  approved: 'Approved',
  superseded: 'Superseded',
};

/** The worksheet of one budget with its tools and the reasoning panel. */
export function BudgetWork({ budget, onStart }: { readonly budget: Budget; readonly onStart: () => void }) {
  const ground = useOpenGround();
  const { book, calendar } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const [grain, setGrain] = useState<Grain>('months');
  const [panelOpen, setPanelOpen] = useState(false);
  const [fillers] = useState(createFillers);
  const noteField = useRef<HTMLTextAreaElement>(null);
  const whole = reckoned(ground, budget);
  const sheet = useMemo(() => worksheet(ground, whole, grain, fillers), [ground, whole, grain, fillers]);
  const money = moneyFormat(book);
  const [selection, setSelection] = useState<Selection>(() =>
    at(
      Math.max(
        0,
        sheet.rows.findIndex((r) => r.enterable),
      ),
      0,
    ),
  );
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const context: EditContext = {
    book,
    reckoned: whole,
    rows: sheet.rows,
    columns: sheet.columns,
    groups: sheet.groups,
  };
  const account = sheet.rows[selection.focus.row]?.enterable ? sheet.rows[selection.focus.row]!.key : null;

  const format = useCallback<CellFormat>(
    (v, column) => (column.kind === 'info' ? money.signed(v) : money.text(v)),
    [money],
  );
  const exact = useCallback<CellFormat>((v) => money.exact(v), [money]);

  const run = (edit: Edit): string | null => {
    if ('trouble' in edit) return edit.trouble;
    const refusal = dispatch(edit.command);
    if (refusal) return 'This budget can only be read';
    if (edit.word) say(edit.word);
    return null;
  };
  const runAloud = (edit: Edit) => {
    const trouble = run(edit);
    if (trouble) say(trouble, 'trouble');
  };

  const { count, sum } = countAndSum(context, rectOf(selection));
  const year = fiscalYearLabel(whole.facts.periods.at(-1)?.year ?? 0);
  const netText = money.text(sheet.net);
  const sumText = money.text(sum);
  useEffect(() => {
    setSession({
      facts: [
        { label: 'Selected', value: String(count) },
        { label: 'Sum', value: sumText },
        { label: `Net profit ${year}`, value: netText },
      ],
    });
    return () => setSession({ facts: [] });
  }, [count, sumText, year, netText]);
  useEffect(() => setSession({ account }), [account]);

  const choose = (g: Grain) => {
    setGrain(g);
    setSelection(at(selection.focus.row, 0));
  };
  const { periods } = whole.facts;
  const span = { first: periods[0]!.index, last: periods.at(-1)!.index };
  const ruler = rulerRange(ground);
  const onRuler = (index: number) => {
    const inside = periods.findIndex((p) => p.index === index);
    if (inside >= 0) {
      const column = grain === 'year' ? 0 : sheet.groups.findIndex((g) => inside >= g.from && inside < g.to);
      return setSelection(at(selection.focus.row, column));
    }
    const other = book.budgets.findLast((b) => {
      const r = reckoned(ground, b).facts.periods;
      return r.some((p) => p.index === index);
    });
    if (other) setSession({ budgetId: other.id });
    else say('No budget covers that month. Start one with “New budget”.');
  };

  const report = () =>
    budgetReport({
      book: book.name,
      currency: book.currency,
      title: budget.name,
      subtitle: budget.approved ? `Approved ${dayText(budget.approved.at)}` : 'Draft',
      accounts: book.accounts,
      periods,
      grain,
      amounts: whole.amounts,
      lastYear: (id) => whole.facts.past(id).lastYear,
      methodName: (id) => (budget.lines[id] ? methodBadge(budget.lines[id].method) : ''),
      note: (id) => budget.lines[id]?.note ?? '',
    });

  const revise = () => {
    const id = `b${book.nextId}`;
    const n = book.budgets.filter((b) => b.first === budget.first && b.length === budget.length).length;
    const refusal = dispatch({
      type: 'addBudget',
      budget: { ...budget, id, name: `${year} revision ${n}`, state: 'draft', approved: null },
    });
    if (!refusal) setSession({ budgetId: id });
  };

  return (
    <div className={stage.stage}>
      <StageHead
        title={<BudgetMenu budget={budget} />}
        subtitle={`${STATE_WORDS[budget.state]}${budget.approved ? ` ${dayText(budget.approved.at)}` : ''} · closed through ${ground.closedThrough === null ? 'nothing yet' : calendar.period(ground.closedThrough).label}`}
        ruler={
          ruler && {
            periods: periodsOf(calendar, ruler),
            closedThrough: ground.closedThrough,
            range: span,
            choose: 'one',
            onChange: (r) => onRuler(r.last),
            label: 'Months of the book; choosing one moves the sheet to it',
          }
        }
      />
      <div className={stage.work}>
        <div className={stage.left}>
          <div className={stage.tools}>
            <SegmentedControl
              size="xs"
              aria-label="Columns"
              value={grain}
              onChange={(g) => choose(g as Grain)}
              data={[
                { value: 'months', label: 'Months' },
                { value: 'quarters', label: 'Quarters' },
                { value: 'year', label: 'Year' },
              ]}
            />
            <Menu position="bottom-start" shadow="sm" transitionProps={{ duration: 0 }}>
              <Menu.Target>
                <Button disabled={readOnly}>Selection ▾</Button>
              </Menu.Target>
              <Menu.Dropdown>
                <Menu.Item
                  rightSection={<kbd>{'>'}</kbd>}
                  onClick={() => runAloud(fillEdit(context, rectOf(selection)))}
                >
                  Fill right
                </Menu.Item>
                <Menu.Item
                  rightSection={<kbd>Delete</kbd>}
                  onClick={() => runAloud(clearEdit(context, rectOf(selection)))}
                >
                  Make blank
                </Menu.Item>
                <Menu.Item
                  rightSection={<kbd>Backspace</kbd>}
                  onClick={() => runAloud(restoreEdit(context, rectOf(selection)))}
                >
                  Restore what the method gives
                </Menu.Item>
              </Menu.Dropdown>
            </Menu>
            {budget.state !== 'draft' && !bookReadOnly && (
              <>
                <span className="faded">Approved figures stay as they are.</span>
                <Button variant="filled" onClick={revise}>
                  Start a revision
                </Button>
              </>
            )}
            <span className={stage.push} />
            <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
              Reasoning
            </Button>
            <Button onClick={onStart} disabled={bookReadOnly}>
              New budget
            </Button>
            <ExportMenu onCsv={() => exportCsv(report())} onXlsx={() => void exportXlsx(report())} />
          </div>
          <div className={stage.fill}>
            <SheetView
              label={`${budget.name}, by ${grain === 'months' ? 'month' : grain === 'quarters' ? 'quarter' : 'year'}`}
              rows={sheet.rows}
              columns={sheet.columns}
              selection={selection}
              onSelection={setSelection}
              format={format}
              exact={exact}
              edit={(row, column) =>
                editText(
                  (sheet.rows[row]?.values[column] ?? null) as Minor | null,
                  book.currency,
                  book.locale,
                )
              }
              readOnly={readOnly}
              methodHead="Made by"
              tone="plan"
              onType={(place, text) => run(typeEdit(context, place, text))}
              onPaste={(rect, block) => runAloud(pasteEdit(context, rect, block))}
              onFill={(rect: Rect) => runAloud(fillEdit(context, rect))}
              onClear={(rect: Rect) => runAloud(clearEdit(context, rect))}
              onRestore={(rect: Rect) => runAloud(restoreEdit(context, rect))}
              onNote={() => {
                setPanelOpen(true);
                requestAnimationFrame(() => noteField.current?.focus());
              }}
              onRefused={() =>
                say(
                  bookReadOnly
                    ? 'This book is being worked on in another tab.'
                    : 'Approved figures stay as they are. Start a revision to change them.',
                  'trouble',
                )
              }
            />
          </div>
        </div>
        <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Reasoning">
          {account ? (
            <ReasoningPanel
              key={account}
              ground={ground}
              reckoned={whole}
              account={account}
              group={
                sheet.columns[selection.focus.column]?.kind === 'amount'
                  ? sheet.groups[selection.focus.column]!
                  : null
              }
              net={sheet.net}
              readOnly={readOnly}
              notesOnly={!bookReadOnly && budget.state !== 'draft'}
              noteField={noteField}
            />
          ) : (
            <p className="faded">Choose a line to see how it is made.</p>
          )}
        </aside>
      </div>
    </div>
  );
}
