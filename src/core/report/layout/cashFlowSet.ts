import type { PeriodIndex } from '@/core/calendar';
import type { Flow } from '@/core/cash';
import { salesOfBudget, servedBy, type Ground } from '@/core/ground';
import { minor, plus, type Minor } from '@/core/money';
import { isProfitAndLoss, newAccount, type Account, type AccountId } from '@/core/model';
import {
  cashAccounts,
  flowAmount,
  flowLines,
  OPERATING,
  PAID_SECTIONS,
  type FlowLine,
  type FlowSection,
} from '@/core/statements';
import type { Linked } from '../table';
import { aheadFor, aheadSides, plainSide, SETS_AHEAD, withStandIns } from './ahead';
import { FLOW_NAMES } from './cashSet';
import type { Compared } from './compared';
import type { PlainRow } from './rows';
import type { RowSet } from './rowSet';
import { STATEMENT_LAYOUTS } from './shipped';
import type { Sides } from './sides';

/* The cash-flow statement as rows of the report machine: lines are movements of accounts, told as money. */

const PROFIT = newAccount('flow-profit', '', 'Net profit', 'otherIncome');
const OPENING = newAccount('flow-opening', '', 'Bank at the start', 'bank');
const CLOSING = newAccount('flow-closing', '', 'Bank at the end', 'bank');
const OTHER = newAccount('flow-other', '', 'Other receipts and payments', 'otherIncome');
const DIRECT: readonly Flow[] = ['customers', 'suppliers', 'payroll', 'taxes'];
const directAccounts = new Map(
  DIRECT.map((f) => [f, newAccount(`flow-${f}`, '', FLOW_NAMES[f], 'otherIncome')]),
);
/** What is paid of interest and income tax, as one line each, in the direct form. */
const paidAccounts = {
  interestPaid: newAccount('flow-interestPaid', '', 'Interest paid', 'otherIncome'),
  incomeTaxPaid: newAccount('flow-incomeTaxPaid', '', 'Income tax paid', 'otherIncome'),
} as const;
const flowOfAccount = new Map([...directAccounts].map(([flow, a]) => [a.id, flow]));

/** A line with the account as which it stands in the report. */
type Line = { readonly account: Account; readonly line: FlowLine };

/** The lines of a book's cash-flow statement, each as an account of its own: what it shows is money, not a balance. */
function linesOf(
  ground: Ground,
  accounts: readonly Account[],
  gains: ReadonlySet<AccountId>,
): readonly Line[] {
  return flowLines(accounts, ground.book.flowClasses, gains, servedBy(ground)).map((line) => {
    const { key, account: of, section } = line;
    const name =
      key === of.id
        ? of.name
        : line.of === 'gains'
          ? `${of.name}: gain or loss on what was sold`
          : `${of.name}, told below`;
    const account = { ...newAccount(`flow ${key}`, of.code, name, 'otherIncome'), keeper: of.keeper };
    behind.set(account, { section, of: of.id });
    return { account, line };
  });
}

/** The banks of the book whose statement has these accounts. */
const banksOf = new WeakMap<readonly Account[], readonly AccountId[]>();

/** What stands behind an account of a statement's own. */
const behind = new WeakMap<Account, { readonly section: FlowSection; readonly of: AccountId }>();

const made = new WeakMap<
  readonly Account[],
  { readonly classes: object; readonly lines: readonly Line[]; readonly all: readonly Account[] }
>();
function flowBook(ground: Ground, compared: Compared) {
  const accounts = withStandIns(ground, compared);
  const classes = ground.book.flowClasses;
  let own = made.get(accounts);
  if (own?.classes !== classes) {
    // Of the ledger and of every budget that may stand beside it.
    const gains = new Set(aheadFor(ground, compared)?.sales().gains);
    for (const budget of ground.book.budgets)
      for (const id of salesOfBudget(ground, budget).gains) gains.add(id);
    const lines = linesOf(ground, accounts, gains);
    own = {
      classes,
      lines,
      all: [
        PROFIT,
        ...lines.map((l) => l.account),
        ...directAccounts.values(),
        ...Object.values(paidAccounts),
        OTHER,
        OPENING,
        CLOSING,
      ],
    };
    banksOf.set(
      own.all,
      cashAccounts(accounts, classes).map((a) => a.id),
    );
    made.set(accounts, own);
  }
  return own;
}

const SECTION_NAMES: Readonly<Record<FlowSection | 'operating', string>> = {
  operating: 'Operating',
  adjustments: 'What was no money, or is told below',
  workingCapital: 'Working capital',
  interestPaid: 'Interest paid',
  incomeTaxPaid: 'Income tax paid',
  investing: 'Investing',
  financing: 'Financing',
};

/** The rows of a cash-flow statement: operating by the indirect or the direct form, investing, financing, the bank. */
function flowRows(accounts: readonly Account[], direct: boolean): PlainRow[] {
  const out: PlainRow[] = [];
  const add = (row: Partial<PlainRow> & Pick<PlainRow, 'kind' | 'key' | 'label'>): number =>
    out.push({
      code: '',
      account: null,
      members: [],
      section: null,
      effect: 1,
      roll: 'sum',
      terms: [],
      own: null,
      ...row,
    }) - 1;
  const line = (account: Account, linked?: readonly Linked[]) =>
    add({
      ...(linked && { linked }),
      kind: 'line',
      key: account.id,
      label: account.name,
      code: account.code,
      members: [account],
      account: behind.get(account)?.of ?? null,
    });
  const total = (key: string, label: string, rows: readonly number[], kind: PlainRow['kind'] = 'subtotal') =>
    add({ kind, key, label, terms: rows.map((row) => ({ row, sign: 1 as const })) });
  const heading = (key: string, label: string) =>
    add({ kind: 'section', key: `heading-${key}`, label, effect: 0 });
  const of = (section: FlowSection) => accounts.filter((a) => behind.get(a)?.section === section);
  const totals: number[] = [];
  heading('operating', SECTION_NAMES.operating);
  if (direct) {
    const told = PAID_SECTIONS.flatMap((section) => (of(section).length > 0 ? [paidAccounts[section]] : []));
    const own = [...directAccounts.values(), ...told, OTHER].map((a) => line(a));
    totals.push(total('operating', 'Cash from operations', own));
  } else {
    const own = [line(PROFIT, [{ report: STATEMENT_LAYOUTS.profit, row: 'netProfit' }])];
    for (const section of ['adjustments', 'workingCapital'] as const) {
      const rows = of(section).map((a) => line(a));
      if (rows.length > 0) own.push(total(section, SECTION_NAMES[section], rows, 'group'));
    }
    const paid = PAID_SECTIONS.filter((section) => of(section).length > 0);
    const generated = paid.length > 0 ? [total('generated', 'Cash generated by operations', own)] : own;
    for (const section of paid)
      generated.push(
        total(
          section,
          SECTION_NAMES[section],
          of(section).map((a) => line(a)),
          'group',
        ),
      );
    totals.push(total('operating', 'Cash from operations', generated));
  }
  for (const section of ['investing', 'financing'] as const) {
    const list = of(section);
    if (list.length === 0) continue;
    heading(section, SECTION_NAMES[section]);
    totals.push(
      total(
        section,
        `Cash from ${section}`,
        list.map((a) => line(a)),
      ),
    );
  }
  const change = total('bankChange', 'Change of the bank', totals, 'result');
  const opening = add({
    kind: 'line',
    key: OPENING.id,
    label: OPENING.name,
    members: [OPENING],
    roll: 'first',
  });
  const banks = banksOf.get(accounts) ?? [];
  add({
    tied: banks.map((row) => ({ report: STATEMENT_LAYOUTS.balance, row })),
    terms: [opening, change].map((row) => ({ row, sign: 1 as const })),
    kind: 'result',
    key: CLOSING.id,
    label: CLOSING.name,
    members: [CLOSING],
    roll: 'last',
  });
  return out;
}

/** A cash-flow statement; `direct` tells operating money by whom it came from and went to. */
export const cashFlowSet = (direct: boolean): RowSet => ({
  ...SETS_AHEAD,
  accounts: (ground, compared) => flowBook(ground, compared).all,
  rows: (_rows, accounts) => flowRows(accounts, direct),
  rollOf: (a) => (a === OPENING ? 'first' : a === CLOSING ? 'last' : 'sum'),
  sides(input) {
    const { ground, compared } = input;
    const { lines } = flowBook(ground, compared);
    const byId = new Map(lines.map((l) => [l.account.id, l]));
    const accounts = withStandIns(ground, compared);
    const banks = cashAccounts(accounts, ground.book.flowClasses);
    const ofProfit = accounts.filter((a) => isProfitAndLoss(a.kind));
    return aheadSides(input, NO_SIDES, ({ balances, stands, flows, sales }) => {
      const moved = (of: readonly Account[], p: PeriodIndex): Minor =>
        minor(of.reduce((t, a) => plus(t, balances.movement(a.id, p) ?? 0), 0));
      const standing = (p: PeriodIndex): Minor =>
        minor(banks.reduce((t, a) => plus(t, balances.balance(a.id, p, true)), 0));
      const lineAt = ({ line }: Line, p: PeriodIndex): Minor | null => flowAmount(line, balances, sales(), p);
      const operating = (p: PeriodIndex): Minor =>
        minor(
          lines.reduce(
            (t, l) => (OPERATING.has(l.line.section) ? plus(t, lineAt(l, p) ?? 0) : t),
            -moved(ofProfit, p),
          ),
        );
      const paidIn = (section: (typeof PAID_SECTIONS)[number], p: PeriodIndex): Minor =>
        minor(lines.reduce((t, l) => (l.line.section === section ? plus(t, lineAt(l, p) ?? 0) : t), 0));
      const isTaxPayable = lines.some(
        ({ line: l }) => l.section === 'incomeTaxPaid' && l.account.kind === 'taxPayable',
      );
      /** Money of a flow; income tax, which goes by its own line, is none of the other taxes. */
      const direct = (flow: Flow, p: PeriodIndex): Minor | null => {
        const all = flows(flow, p);
        return all === null || flow !== 'taxes' || !isTaxPayable
          ? all
          : minor(all - paidIn('incomeTaxPaid', p));
      };
      return (account, _scope, p) => {
        if (account === PROFIT) return minor(-moved(ofProfit, p));
        if (!stands(p)) return null;
        if (account === CLOSING) return standing(p);
        if (account === OPENING) return minor(standing(p) - moved(banks, p));
        const flow = flowOfAccount.get(account.id);
        if (flow !== undefined) return direct(flow, p);
        if (account === paidAccounts.interestPaid) return paidIn('interestPaid', p);
        if (account === paidAccounts.incomeTaxPaid) return paidIn('incomeTaxPaid', p);
        // What is told of no one in particular is what operations come to beside the others.
        if (account === OTHER)
          return minor(
            operating(p) -
              DIRECT.reduce((t, f) => plus(t, direct(f, p) ?? 0), 0) -
              PAID_SECTIONS.reduce((t, s) => plus(t, paidIn(s, p)), 0),
          );
        const own = byId.get(account.id);
        return own ? lineAt(own, p) : null;
      };
    });
  },
});

const nothing = plainSide(() => null);
const NO_SIDES: Sides = {
  actual: nothing,
  reclassified: nothing,
  outlook: nothing,
  lastYear: nothing,
  flexible: nothing,
  mix: nothing,
  first: nothing,
  second: nothing,
};
