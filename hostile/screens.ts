import { yearRange } from '@/core/calendar';
import { causesIn } from '@/core/cash';
import { checkBook } from '@/core/checks';
import { checkCash } from '@/core/checks/cashChecks';
import { livePlan } from '@/core/exchange/livePlan';
import { caseFile, readCases } from '@/core/exchange/caseFile';
import { reportCsv } from '@/core/exchange/reportCsv';
import { reportXlsx } from '@/core/exchange/reportXlsx';
import { planXlsx } from '@/core/exchange/planXlsx';
import { entriesOf, trialBalance, type LedgerBlock } from '@/core/ledger';
import { RATIO_IDS, redo, undo, type History } from '@/core/model';
import { explainMonth, pricesUntouched, remindersFor } from '@/core/plan';
import { fileTable, layoutsOf, scheduleReports, trialReport, type ReportTable } from '@/core/report';
import { conversionDays, wayToCash, workingCapital } from '@/core/statements';
import { filteredLedger, ledgerRows, NO_FILTER, oddities } from '@/features/books/ledgerRows';
import { compareBudgets } from '@/features/budget/views/compare';
import { approvedFor } from '@/features/budget/sheet/filters';
import { labelsOf, namesOf } from '@/components/formula/formulaNames';
import { useSetup } from '@/features/budget/sheet/setup';
import { createFillers, NO_CHOICE, worksheet } from '@/features/budget/rows/worksheetRows';
import { aheadData } from '@/features/cash/aheadRows';
import { causeWords } from '@/store/cashWords';
import { handoutWords, mailWords, returnWords } from '@/store/handoutWords';
import {
  compareReturn,
  draftOf,
  handoutPage,
  handoutState,
  mergeOf,
  NO_PICKS,
  pageRows,
  roundPeriods,
  USUAL_MEANING,
  yearBeforeOf,
} from '@/core/handout';
import type { Day } from '@/core/calendar';
import { lookAt } from '@/features/variance/varianceData';
import { assumedIn } from '@/core/scenario';
import { answered, edgesOf, missesOf, outcomesOf, spreadFrom } from '@/core/whatif';
import { caseTables } from '@/features/whatif/caseTables';
import {
  adjustsWords,
  decimalsOf,
  movedOn,
  namesWhatIs,
  readSize,
  sizeDraft,
  sizeIn,
  sizeText,
  whenWords,
} from '@/store/caseWords';
import { ROW_LINES, SCHEDULE_NAMES } from '@/store/scheduleWords';
import { stepWords } from '@/store/statementWords';
import { changeWords, placesOf } from '@/store/changeWords';
import {
  aheadOf,
  applying,
  approvedCash,
  budgetOn,
  cashOf,
  comparisonsAt,
  covenantsOf,
  groundAssuming,
  lastKnown,
  lineMoney,
  linesApart,
  makeGround,
  plannedBooks,
  reckoned,
  measuresOf,
  ratiosOf,
  rulerRange,
  scheduleTies,
  thenAndNowOf,
  trialOfTerms,
  type Ground,
} from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { budgetStates, driverChanges, figureChanges } from '@/store/history';

/**
 * Reckons all that the screens of a book are drawn from: ledger, trial balance, worksheet of every segment, reasoning of
 * every month, reports and their files, comparisons, variance of every month, checks, journal. Throws what they would.
 */
export async function drawAll(
  history: History,
  blocks: ReadonlyMap<string, LedgerBlock>,
  files: boolean,
): Promise<void> {
  const { book, journal } = history;
  const ground = makeGround(book, blocks);
  const { calendar, balances } = ground;
  const money = moneyFormat(book);
  const tables: ReportTable[] = [];
  const range = rulerRange(ground);
  if (range) {
    for (let p = range.first; p <= range.last; p++) calendar.period(p);
    const year = yearRange(calendar, calendar.period(range.last).year);
    const odd = oddities(ground, balances, year);
    const ledger = filteredLedger(ground, balances, year, NO_FILTER, odd);
    ledgerRows(ground, year, ledger, odd, money.text);
    const trial = trialBalance(book.accounts, balances, calendar, range.last);
    tables.push(
      ledger,
      trialReport(trial, {
        book: book.name,
        currency: book.currency,
        title: 'Trial balance',
        subtitle: '',
        unclosed: 'Profit not closed',
      }),
    );
    for (const a of book.accounts.slice(0, 20)) entriesOf(ground.blocks, calendar, a.id, year, ground.view);
  }
  labelsOf(namesOf(book.accounts, []));
  for (const budget of book.budgets) {
    const whole = reckoned(ground, budget);
    const { facts, reckoning } = whole;
    for (const segment of ['all' as const, ...budget.segments])
      worksheet(
        ground,
        whole,
        { ...NO_CHOICE, setup: useSetup.getState(), segment, approved: approvedFor(book.budgets, budget) },
        createFillers(),
      );
    for (const [line, result] of reckoning.lines)
      for (let i = 0; i < facts.periods.length; i += 3) explainMonth(line, result, reckoning, i);
    remindersFor(facts, book.accounts);
    pricesUntouched(budget, () => true);
    const sheets = livePlan(ground, budget, 'all', () => '');
    if (files) await planXlsx(sheets, book.currency);
    for (const other of book.budgets.slice(0, 3)) if (other !== budget) compareBudgets(ground, other, budget);
    scheduleTies(ground, budget);
    linesApart(ground, budget);
    plannedBooks(ground, budget);
    tables.push(
      ...scheduleReports(ground, budget, {
        kinds: SCHEDULE_NAMES,
        lines: ROW_LINES,
        total: '',
        subtitle: '',
      }),
    );
    budgetStates(history, budget.id);
    const [first] = budget.lines;
    if (first) figureChanges(history, blocks, { budget: budget.id, line: first, month: 0 });
    const [driver] = budget.drivers;
    if (driver) driverChanges(history, blocks, { budget: budget.id, driver: driver.id });
    for (const p of facts.periods.slice(0, 15)) {
      for (const compared of comparisonsAt(ground, p.index)) {
        // Every layout in the first month, the first of them in all.
        for (const layout of p === facts.periods[0] ? layoutsOf(book) : layoutsOf(book).slice(0, 1)) {
          const { table } = lookAt(ground, layout, p.index, compared.id).report;
          for (const row of table.rows) void row.cells;
          if (p === facts.periods[0]) tables.push(fileTable(table));
        }
      }
    }
  }
  for (const budget of [null, ...book.budgets.slice(0, 5)]) {
    const view = cashOf(ground, budget);
    if (!view) continue;
    for (const grain of ['months', 'weeks', 'days'] as const)
      tables.push(aheadData(ground, view, grain, view.input.periods[0]!.index).report);
    const all = { from: view.input.start, to: view.input.start + view.projected.days };
    for (const cause of causesIn(view.projected, all, () => true).slice(0, 500))
      causeWords(ground, view, cause);
    for (const a of book.accounts.slice(0, 50)) lineMoney(view, a.id, undefined, null);
    trialOfTerms(ground, view);
    for (const kept of book.cash.kept.slice(0, 5))
      for (const grain of ['weeks', 'months'] as const) thenAndNowOf(ground, view, kept, grain);
    if (budget) approvedCash(ground, budget);
    const ahead = aheadOf(ground, budget)!;
    const ratioAt = ratiosOf(ground, ahead);
    for (const id of RATIO_IDS) ratioAt(id, ahead.last);
    const measureAt = measuresOf(ground, ahead, ratioAt);
    covenantsOf(ground, ahead, measureAt);
    for (const own of book.ownRatios) measureAt({ own: own.id }, ahead.last);
    for (const span of [1, 3, 12])
      conversionDays(workingCapital(ahead.balances, ahead.accounts, calendar, ahead.last, span));
    const way = wayToCash(ahead.balances, ahead.accounts, book.flowClasses, ahead.sales(), {
      first: ahead.start - 2,
      last: ahead.last,
    });
    for (const { line, amount } of way.steps) stepWords(line, amount, money);
  }
  await drawCases(ground, files, tables);
  for (const round of book.rounds.slice(0, 5)) {
    const budget = book.budgets.find((b) => b.id === round.budget)!;
    const periods = roundPeriods(calendar, round);
    const draft = draftOf(ground, budget, round);
    const lastYear = yearBeforeOf(ground, budget, round).of;
    for (const handout of round.handouts.slice(0, 10)) {
      handoutState(handout, round, '2026-11-27' as Day);
      pageRows(handoutPage(ground, budget, round, handout, handoutWords(ground)), String);
      mailWords(ground, round, handout, periods);
      for (const returned of handout.returns.slice(0, 5)) {
        const meaning = USUAL_MEANING;
        const c = { round, handout, returned, periods, draft, lastYear, meaning, picks: NO_PICKS };
        mergeOf(compareReturn(c), c);
        returnWords(handout, returned);
      }
    }
  }
  checkBook(ground, blocks);
  // What the ledger itself is off by is said, and is no fault of ours.
  const ofLedger = new Set(['flowTies', 'sheetBalances']);
  const unsound = checkCash(ground, null).filter((c) => !c.holds && !c.notice && !ofLedger.has(c.code));
  if (unsound.length > 0) throw new Error(`Cash does not add up: ${JSON.stringify(unsound)}`);
  for (const table of tables) {
    reportCsv(table);
    if (files) await reportXlsx(table);
  }
  for (const change of journal.slice(-40)) {
    changeWords(change);
    placesOf(change);
  }
  let h = history;
  for (let n = 0; n < 30 && h.done.length > 0; n++) {
    const before = undo(h, 't');
    if (before === h) break;
    h = before;
    makeGround(h.book, blocks);
  }
  redo(h, 't');
}

/** What is drawn of cases: what they come to, what they move, what each adjustment is in words, and what leaves of them. */
async function drawCases(ground: Ground, files: boolean, tables: ReportTable[]): Promise<void> {
  const { book, calendar } = ground;
  const closed = lastKnown(ground);
  for (const a of book.adjustments) {
    adjustsWords(a.what, book);
    whenWords(calendar, a);
    namesWhatIs(a.what, book);
    movedOn(calendar, a, closed);
    spreadFrom(missesOf(ground, a.what), 0);
    for (const c of book.cases) {
      const size = sizeIn(c, a.id);
      if (size === null) continue;
      const decimals = decimalsOf(book, a.what);
      sizeText(a.what, size, book, decimals);
      readSize(a.what, sizeDraft(a.what, size, book, decimals), book, decimals);
    }
  }
  // What is gone from the book is left out and told; the file itself is always one.
  const spoiled = readCases(caseFile(book), book).issues.filter((i) =>
    ['notJson', 'notCases', 'newerVersion', 'invalid'].includes(i.code),
  );
  if (spoiled.length > 0) throw new Error(JSON.stringify(spoiled));
  // Each look at each case reckons the plan once more: whole only where files are made too.
  for (const budget of files ? [null, ...book.budgets.slice(0, 3)] : [null]) {
    const view = cashOf(ground, budget);
    if (!view) continue;
    const { periods } = view.input;
    const range = { first: periods[0]!.index, last: periods.at(-1)!.index };
    const before = new Set(
      checkCash(ground, budget?.id ?? null)
        .filter((x) => !x.holds)
        .map((x) => x.code),
    );
    const look = (own: Ground) => outcomesOf(own, budgetOn(own, budget), range);
    const cases = book.cases.slice(0, files ? 4 : 1).map((c) => {
      const own = groundAssuming(ground, c.id, assumedIn(book, c));
      edgesOf(own, budgetOn(own, budget), range);
      // Whatever is assumed, money and statements add up.
      const unsound = checkCash(own, budget?.id ?? null).filter((x) => !x.holds && !x.notice);
      const newly = unsound.filter((x) => !before.has(x.code));
      if (newly.length > 0) throw new Error(`A case does not add up: ${JSON.stringify(newly)}`);
      return { case: c, ground: own, outcomes: look(own) };
    });
    const shown = caseTables({ ground, looked: budget, range, base: look(ground), cases, over: 'x' });
    tables.push(...shown);
    if (!files) continue;
    await reportXlsx(shown[0]);
    for (const c of book.cases.slice(0, 2)) {
      const assumed = assumedIn(book, c);
      answered(
        { ground, look: budget, range },
        { ask: 'steps', assumed: assumed.map((a) => ({ ...a, low: null, high: null })), outcome: 'lowBank' },
      );
      if (budget?.state === 'draft') applying(ground, budget, assumed);
    }
  }
}
