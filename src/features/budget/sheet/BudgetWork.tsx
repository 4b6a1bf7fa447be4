'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import dynamic from 'next/dynamic';
import { Button } from '@mantine/core';
import { editText, type Minor } from '@/core/money';
import { fiscalYearsLabel } from '@/core/calendar';
import type { Budget, SegmentId } from '@/core/model';
import { at, rectOf, type Rect, type Selection } from '@/core/sheet';
import stage from '@/components/Stage.module.css';
import { useSteady } from '@/components/useSteady';
import { SheetView } from '@/components/sheet/SheetView';
import type { CellFormat } from '@/components/sheet/SheetRowView';
import { refusalWords } from '@/store/refusalWords';
import { dispatch, useBookStore } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { moneyFormat, percentText } from '@/store/format';
import { lookedNow } from '@/store/person';
import { say, setSession, useSession } from '@/store/session';
import { AskBar } from './AskBar';
import { keyPressed, TOOLS, type Tool } from '../edit/commands';
import { inDialog, isTyping } from '@/components/typing';
import {
  clearEdit,
  countAndSum,
  dragFillEdit,
  refsIn,
  restoreEdit,
  spanAt,
  typeEdit,
  type Edit,
  type EditContext,
} from '../edit/edits';
import { FilterBar } from './FilterBar';
import { approvedFor, isFiltering, NO_FILTER, type Filter } from './filters';
import { ghostCells, ghostFor } from '../rows/ghosts';
import { paletteItems } from '../menu/paletteItems';
import { PanelHost, type PanelFacts } from './PanelHost';
import { pasteOf, type Pasted } from '../edit/paste';
import { firstLine, firstMonth, toggled, within } from '../rows/places';
import { ReviseButton } from '../menu/ReviseButton';
import { SegmentChoice } from './SegmentChoice';
import { leadColumns, setSetup, useSetup, type Setup } from './setup';
import { SheetTools } from './SheetTools';
import { useReckoned } from '../rows/useReckoned';
import { createFillers, segmentShown, worksheet } from '../rows/worksheetRows';

type Pressed = Parameters<typeof keyPressed>[0];

const CopyDialog = dynamic(() => import('./CopyDialog').then((m) => m.CopyDialog));
const PasteDialog = dynamic(() => import('./PasteDialog').then((m) => m.PasteDialog));

/** The worksheet of one budget with its tools and the reasoning panel. */
export function BudgetWork({
  ground,
  budget,
  wanted,
  onArrived,
  onStart,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  /** The month that the ruler asks for; told back once the sheet has moved there. */
  readonly wanted: number | null;
  readonly onArrived: () => void;
  readonly onStart: () => void;
}) {
  const { book } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const setup = useSetup();
  const sought = useSession((s) => s.soughtAccount);
  const [panelOpen, setPanelOpen] = useState(false);
  const [fillers] = useState(createFillers);
  const [filter, setFilter] = useState<Filter>(NO_FILTER);
  const [finding, setFinding] = useState(false);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const [segment, setSegment] = useState<SegmentId | 'all'>('all');
  const [asking, setAsking] = useState<Tool | null>(null);
  const [dialog, setDialog] = useState<'copy' | null>(null);
  const [pasted, setPasted] = useState<Pasted | null>(null);
  const noteField = useRef<HTMLTextAreaElement>(null);
  const left = useRef<HTMLDivElement>(null);
  const { whole, lineOf } = useReckoned(ground, budget);
  const approved = useMemo(() => approvedFor(book.budgets, budget), [book.budgets, budget]);
  const sheet = useMemo(
    () => worksheet(ground, whole, { setup, filter, folded, segment, approved }, fillers),
    [ground, whole, setup, filter, folded, segment, approved, fillers],
  );
  const { rows, columns } = sheet;
  const money = moneyFormat(book);
  const [chosen, setSelection] = useState<Selection>(() => at(firstLine(rows), firstMonth(columns)));
  const selection = within(chosen, rows.length, columns.length);
  const rect = rectOf(selection);
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const context: EditContext = { book, reckoned: whole, rows, columns, line: lineOf };
  const refs = refsIn(context, rect);
  const focused = rows[selection.focus.row];
  const account = focused?.account ?? null;
  const shownSegment = segmentShown(budget.segments, segment);
  const ghost = ghostFor(ground, whole, setup, shownSegment);

  const format = useCallback<CellFormat>(
    (v, column) =>
      column.key === 'change'
        ? money.signed(v)
        : column.key === 'changePercent' || column.key === 'share'
          ? percentText(v)
          : money.text(v),
    [money],
  );
  const exact = useCallback<CellFormat>(
    (v, column) => (column.key === 'changePercent' || column.key === 'share' ? '' : money.exact(v)),
    [money],
  );
  const fold = useCallback((key: string) => setFolded((now) => toggled(now, key)), []);

  const run = (edit: Edit): string | null => {
    if ('trouble' in edit) return edit.trouble;
    const refusal = dispatch(edit.command);
    if (refusal) return refusalWords(refusal, book);
    const { word, otherwise } = edit;
    const act = otherwise && {
      label: otherwise.label,
      run: () => {
        const refused = otherwise.commands.map((command) => dispatch(command)).find((r) => r !== null);
        say(refused ? refusalWords(refused, book) : otherwise.done, refused ? 'trouble' : 'info');
      },
    };
    if (word) say(word, 'info', act);
    return null;
  };
  const runAloud = (edit: Edit) => {
    const trouble = run(edit);
    if (trouble) say(trouble, 'trouble');
  };
  const refused = () =>
    say(
      bookReadOnly
        ? 'This book is being worked on in another tab.'
        : 'Approved figures stay as they are. Start a revision to change them.',
      'trouble',
    );
  const work = (tool: Tool) => {
    if (readOnly) return refused();
    if (tool.ask) setAsking(tool);
    else runAloud(tool.run(context, rect, ''));
  };
  const look = () => {
    if (bookReadOnly || refs.length === 0) return refused();
    const done = lineOf(refs[0]!)?.looked;
    dispatch({ type: 'setLooked', budget: budget.id, lines: refs, looked: done ? null : lookedNow() });
  };
  const note = () => {
    setPanelOpen(true);
    // Not before the panel shows this very line: the note must not go to the one before.
    const wait = (tries: number) => {
      if (noteField.current?.dataset.account === account) noteField.current?.focus();
      else if (tries > 0) requestAnimationFrame(() => wait(tries - 1));
    };
    requestAnimationFrame(() => wait(60));
  };
  // Whatever was asked above the sheet, the hand is back on it afterwards.
  const toSheet = () =>
    left.current?.querySelector<HTMLElement>('[role="grid"]')?.focus({ preventScroll: true });
  const wholeLine = () =>
    setSelection({
      anchor: { row: selection.anchor.row, column: 0 },
      focus: { row: selection.focus.row, column: columns.length - 1 },
    });
  const copy = () => (readOnly ? refused() : setDialog('copy'));
  // Someone asks for a line: by the palette, the first pass, a list of things forgotten.
  const soughtRow = sought === null ? -1 : rows.findIndex((r) => r.account === sought);
  useEffect(() => {
    if (sought === null) return;
    if (soughtRow < 0 && (isFiltering(filter) || folded.size > 0)) {
      // Out of sight is not gone: what hides it gives way.
      // eslint-disable-next-line react-hooks/set-state-in-effect -- what is asked for from outside is followed once
      setFilter(NO_FILTER);
      setFolded(new Set());
      return;
    }
    if (soughtRow >= 0) setSelection((s) => at(soughtRow, s.focus.column));
    setSession({ soughtAccount: null });
  }, [sought, soughtRow, filter, folded]);
  const wantedColumn =
    wanted === null
      ? -1
      : columns.findIndex((c) => c.kind !== 'info' && c.span && wanted >= c.span.from && wanted < c.span.to);
  useEffect(() => {
    if (wanted === null) return;
    // eslint-disable-next-line react-hooks/set-state-in-effect -- as above: the ruler asks once
    if (wantedColumn >= 0) setSelection((s) => at(s.focus.row, wantedColumn));
    onArrived();
  }, [wanted, wantedColumn, onArrived]);

  const { count, sum } = countAndSum(context, rect);
  const { periods } = whole.facts;
  const year = fiscalYearsLabel(periods);
  const netText = sheet.net === null ? null : money.text(sheet.net);
  const sumText = money.text(sum);
  const { done, of } = sheet.looked;
  useEffect(() => {
    setSession({
      facts: [
        { label: 'Selected', value: String(count) },
        { label: 'Sum', value: sumText },
        ...(netText === null ? [] : [{ label: `Net profit ${year}`, value: netText }]),
        ...(done > 0 ? [{ label: 'Looked at', value: `${done} of ${of}` }] : []),
      ],
    });
    return () => setSession({ facts: [] });
  }, [count, sumText, year, netText, done, of]);
  useEffect(() => setSession({ account }), [account]);

  const panel: PanelFacts | null =
    refs.length > 0 && focused?.ref
      ? {
          ground,
          reckoned: whole,
          refs: [focused.ref, ...refs.filter((r) => r.account !== focused.ref!.account)],
          lineOf,
          group:
            columns[selection.focus.column]?.kind === 'amount'
              ? spanAt(context, selection.focus.column)
              : null,
          net: sheet.net,
          readOnly,
          notesOnly: !bookReadOnly && budget.state !== 'draft',
        }
      : null;

  const steady = useSteady({
    onGrain: (grain: Setup['grain']) => {
      setSetup({ grain });
      setSelection(at(selection.focus.row, grain === 'beside' ? 1 : 0));
    },
    onTool: work,
    onCopy: copy,
    onLook: look,
    onNote: note,
  });
  const offers = useSteady({
    offer: () =>
      paletteItems(setup, {
        onTool: work,
        onCopy: copy,
        onLook: look,
        onNote: note,
        onStart,
        onFind: () => setFinding(true),
      }),
  });
  useEffect(() => {
    setSession({ palette: offers.offer });
    return () => setSession({ palette: () => [] });
  }, [offers]);
  const keys = useSteady({
    /** Whether a key did something: those with Alt or Ctrl do so wherever the hand is. */
    press(e: Pressed): boolean {
      const pressed = keyPressed(e);
      const tool = TOOLS.find((t) => t.key === pressed && t.key !== 'Delete' && t.key !== 'Backspace');
      const others: Record<string, () => void> = {
        'Alt C': copy,
        'Alt L': look,
        'Alt N': note,
        'Alt W': () => setSetup({ wholeWindow: !setup.wholeWindow }),
        'Ctrl Shift F': () => setFinding(true),
      };
      const does = tool ? () => work(tool) : others[pressed];
      does?.();
      return does !== undefined;
    },
  });
  useEffect(() => {
    const onWindowKey = (e: KeyboardEvent) => {
      if (!e.altKey && !e.ctrlKey && !e.metaKey) return;
      if (e.defaultPrevented || isTyping(e.target) || inDialog(e.target)) return;
      if (keys.press(e)) e.preventDefault();
    };
    window.addEventListener('keydown', onWindowKey);
    return () => window.removeEventListener('keydown', onWindowKey);
  }, [keys]);
  const onKey = (e: React.KeyboardEvent): boolean => {
    if (e.ctrlKey || e.metaKey || e.altKey) return false;
    if (e.key === ' ') wholeLine();
    else if (e.key === 'Delete' && e.shiftKey) work(TOOLS.find((t) => t.id === 'clearMonths')!);
    else return false;
    return true;
  };

  return (
    <div className={stage.work}>
      <div className={stage.left} ref={left}>
        <div className={stage.tools}>
          <SheetTools
            setup={setup}
            budgets={book.budgets.filter((b) => b.id !== budget.id)}
            readOnly={readOnly}
            {...steady}
          />
          <SegmentChoice book={book} budget={budget} value={shownSegment} onChange={setSegment} />
          {budget.state !== 'draft' && !bookReadOnly && <ReviseButton budget={budget} book={book} />}
          <span className={stage.push} />
          <Button
            aria-expanded={finding}
            data-on={isFiltering(filter) || undefined}
            onClick={() => {
              setFinding(!finding);
              if (finding) setFilter(NO_FILTER);
            }}
          >
            {isFiltering(filter) ? 'Filtered' : 'Find'}
          </Button>
          {!bookReadOnly && (
            <Button title="Add an account" onClick={() => setSession({ asked: 'account' })}>
              + Account
            </Button>
          )}
          <Button className={stage.toggle} onClick={() => setPanelOpen(!panelOpen)}>
            Reasoning
          </Button>
        </div>
        {finding && (
          <FilterBar
            book={book}
            filter={filter}
            withApproved={approved !== null}
            onFilter={setFilter}
            onClose={() => {
              setFinding(false);
              setFilter(NO_FILTER);
              toSheet();
            }}
          />
        )}
        {asking?.ask && (
          <AskBar
            key={asking.id}
            ask={asking.ask}
            onClose={() => {
              setAsking(null);
              toSheet();
            }}
            onText={(text) => {
              const edit = asking.run(context, rect, text);
              const trouble = run(edit);
              if (!trouble) {
                setAsking(null);
                toSheet();
              }
              return trouble;
            }}
          />
        )}
        <div className={stage.fill}>
          <SheetView
            label={`${budget.name}, by ${setup.grain === 'year' ? 'year' : setup.grain === 'quarters' ? 'quarter' : 'month'}`}
            rows={rows}
            columns={columns}
            selection={selection}
            onSelection={setSelection}
            format={format}
            exact={exact}
            edit={(row, column) =>
              editText(
                (rows[row]?.values[column] ?? null) as Minor | null,
                book.currency,
                book.locale,
                book.settings.thousands,
              )
            }
            readOnly={readOnly}
            lead={leadColumns(setup.lead)}
            ghost={
              ghost && {
                beneath: setup.ghosts === 'all' ? 'all' : 'selected',
                label: ghost.label,
                values: (row) => ghostCells(ghost, rows[row]!.account!, columns, whole),
              }
            }
            tone="plan"
            onType={(place, text) => run(typeEdit(context, place, text))}
            onPaste={(r, block) => {
              const result = pasteOf(context, r, block);
              if ('preview' in result) setPasted(result.preview);
              else runAloud(result);
            }}
            onDragFill={(from, to) => runAloud(dragFillEdit(context, from, to))}
            onClear={(r: Rect) => runAloud(clearEdit(context, r))}
            onRestore={(r: Rect) => runAloud(restoreEdit(context, r))}
            onFold={fold}
            onKey={onKey}
            onRefused={refused}
          />
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} data-open={panelOpen || undefined} aria-label="Reasoning">
        <PanelHost panel={panel} account={account} noteField={noteField} />
      </aside>
      {dialog === 'copy' && (
        <CopyDialog
          ground={ground}
          context={context}
          rect={rect}
          onClose={() => {
            setDialog(null);
            toSheet();
          }}
          onEdit={(edit) => {
            runAloud(edit);
            if ('trouble' in edit) return;
            setDialog(null);
            toSheet();
          }}
        />
      )}
      {pasted && (
        <PasteDialog
          pasted={pasted}
          book={book}
          onClose={() => {
            setPasted(null);
            toSheet();
          }}
          onTake={() => {
            runAloud(pasted.edit);
            setPasted(null);
            toSheet();
          }}
        />
      )}
    </div>
  );
}
