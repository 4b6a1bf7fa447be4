import type { PeriodId } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import type {
  Adjustment,
  Adjusts,
  AmountWay,
  Reach,
  RowField,
  ScheduleRow,
  TermsRule,
  When,
} from '@/core/model';
import { percent } from '@/core/money';
import type { TryFrom } from '@/store/session';
import { fieldsOf, reachKey, reachOfKeys, rowsOf, triedBy, type Tried } from './kinds';

/* An adjustment as the dialog edits it, and back: what the dialog does not edit of one stays as it was. */

export const ANY = '*';
export const OUTSIDE = '';
export type DriverWay = AmountWay['as'];

/** Terms to begin with where others are tried: on account, 30 days after the invoice. */
const NEW_RULE: TermsRule = {
  kind: 'onAccount',
  invoiced: { of: 'spread' },
  shares: [{ percent: percent('100'), due: { of: 'days', days: 30 } }],
  moved: 'next',
  badDebt: null,
  through: null,
};

/** What the form holds beside the sizes. */
export type Form = {
  readonly tried: Tried;
  readonly name: string;
  readonly why: string;
  readonly reach: readonly string[];
  readonly row: string;
  readonly field: RowField;
  readonly by: 'value' | 'percent';
  readonly added: ScheduleRow | null;
  readonly byDay: boolean;
  readonly side: 'in' | 'out';
  readonly counterparty: string;
  /** The item of the counterparty; empty: all. */
  readonly item: string;
  readonly driver: string;
  readonly driverWay: DriverWay;
  readonly formula: string;
  readonly rule: TermsRule;
  /** The segment of the lines: an id, `ANY` for whichever, `OUTSIDE` for what belongs to none. */
  readonly segment: string;
  readonly dated: string;
  readonly stays: boolean;
  readonly compounding: boolean;
  readonly when: When;
};

/** The form as it begins where somebody stood. */
function begunAt({ of, from }: TryFrom, plain: Form, rows: readonly ScheduleRow[]): Form {
  // Nothing that is closed is tried.
  const form = {
    ...plain,
    when: { ...plain.when, from: from !== null && from > plain.when.from ? from : plain.when.from },
  };
  if ('line' in of) return { ...form, reach: [reachKey({ of: 'account', account: of.line })] };
  if ('terms' in of)
    return { ...form, tried: 'termsDays', reach: [reachKey({ of: 'account', account: of.terms })] };
  if ('driver' in of) return { ...form, tried: 'driver', driver: of.driver };
  if ('dated' in of) return { ...form, tried: 'datedMoved', dated: of.dated };
  if ('side' in of) return { ...form, tried: 'itemsLater', side: of.side, counterparty: of.counterparty };
  const row = rows.find((r) => r.id === of.row);
  return row
    ? { ...form, tried: 'rowMoved', row: row.id, field: fieldsOf(row)[0]?.value ?? form.field }
    : form;
}

export function formOf(
  adjustment: Adjustment | null,
  ground: Ground,
  first: PeriodId,
  begin: TryFrom | null,
): Form {
  const { book } = ground;
  const rows = rowsOf(ground);
  const what = adjustment?.what;
  const plain: Form = {
    tried: 'percent',
    name: '',
    why: '',
    reach: [],
    row: rows[0]?.id ?? '',
    field: rows[0] ? (fieldsOf(rows[0])[0]?.value ?? 'amount') : 'amount',
    by: 'value',
    added: null,
    byDay: false,
    side: 'in',
    counterparty: '',
    item: '',
    driver: book.budgets.flatMap((b) => b.drivers)[0]?.id ?? '',
    driverWay: 'percent',
    formula: '',
    rule: NEW_RULE,
    segment: ANY,
    dated: book.cash.dated[0]?.id ?? '',
    stays: false,
    compounding: true,
    when: { from: first, until: null, every: 1, times: null, ramp: null },
  };
  if (!adjustment || !what) return begin ? begunAt(begin, plain, rows) : plain;
  return {
    ...plain,
    tried: triedBy(what),
    name: adjustment.name,
    why: adjustment.why,
    when: adjustment.when,
    ...('reach' in what
      ? {
          reach: what.reach.lines.map(reachKey),
          segment: what.reach.segment === undefined ? ANY : (what.reach.segment ?? OUTSIDE),
        }
      : {}),
    ...(what.on === 'amounts' && what.way.as === 'formula' ? { formula: what.way.formula } : {}),
    ...(what.on === 'termsNew' ? { rule: what.rule } : {}),
    ...(what.on === 'amounts' && what.way.as === 'growth'
      ? { stays: what.way.stays, compounding: what.way.compounding }
      : {}),
    ...(what.on === 'rowMoved' || what.on === 'rowGone' || what.on === 'rowField' ? { row: what.row } : {}),
    ...(what.on === 'rowField' ? { field: what.field, by: what.by } : {}),
    ...(what.on === 'rowAdded' ? { added: what.row, byDay: what.by === 'day' } : {}),
    ...(what.on === 'items'
      ? { side: what.side, counterparty: what.counterparty ?? '', item: what.item ?? '' }
      : {}),
    ...(what.on === 'driver'
      ? {
          driver: what.driver,
          driverWay: what.way.as,
          ...(what.way.as === 'growth' ? { stays: what.way.stays, compounding: what.way.compounding } : {}),
        }
      : {}),
    ...(what.on === 'datedMoved' ? { dated: what.item } : {}),
  };
}

/** What the form says; null while it does not say enough. `was`: what it was opened with, of which the form may not edit all. */
export function whatOf(form: Form, added: ScheduleRow | null, was: Adjusts | null): Adjusts | null {
  const { tried } = form;
  const reach: Reach = {
    ...reachOfKeys(form.reach),
    ...(form.segment === ANY ? {} : { segment: form.segment === OUTSIDE ? null : form.segment }),
  };
  switch (tried) {
    case 'percent':
    case 'amount':
    case 'new':
    case 'onBefore':
      return { on: 'amounts', reach, way: { as: tried } };
    case 'growth':
      return {
        on: 'amounts',
        reach,
        way: { as: 'growth', compounding: form.compounding, stays: form.stays },
      };
    case 'formula':
      return form.formula === ''
        ? null
        : { on: 'amounts', reach, way: { as: 'formula', formula: form.formula } };
    case 'termsNew':
      return { on: 'termsNew', reach, rule: form.rule };
    case 'linesMoved':
    case 'termsDays':
    case 'termsLost':
      return { on: tried, reach };
    case 'itemsLater':
    case 'itemsPaid':
    case 'itemsNever':
      return {
        on: 'items',
        side: form.side,
        counterparty: form.counterparty === '' ? null : form.counterparty,
        item: form.item === '' ? null : form.item,
        as: tried === 'itemsLater' ? 'later' : tried === 'itemsPaid' ? 'paid' : 'never',
      };
    case 'staff':
    case 'loan':
    case 'asset':
    case 'equity':
      return added && { on: 'rowAdded', row: added, by: form.byDay ? 'day' : 'yes' };
    case 'rowGone':
    case 'rowMoved':
      return form.row === '' ? null : { on: tried, row: form.row };
    case 'rowField':
      return form.row === '' ? null : { on: tried, row: form.row, field: form.field, by: form.by };
    case 'pay':
      return { on: 'pay', accounts: was?.on === 'pay' ? was.accounts : [] };
    case 'oncosts':
      return { on: 'oncosts' };
    case 'driver':
      return form.driver === '' ? null : driverOf(form, was);
    case 'datedMoved':
      return form.dated === '' ? null : { on: 'datedMoved', item: form.dated };
    case 'incomeTax':
    case 'limit':
    case 'floor':
      return { on: 'rate', of: tried, by: was?.on === 'rate' ? was.by : 'value' };
    case 'interest':
    case 'lineRate':
      return { on: 'rate', of: tried, by: was?.on === 'rate' ? was.by : 'more' };
  }
}

function driverOf({ driver, driverWay: as, compounding, stays }: Form, was: Adjusts | null): Adjusts | null {
  switch (as) {
    case 'growth':
      return { on: 'driver', driver, way: { as, compounding, stays } };
    case 'formula':
      // Only what came with one has one.
      return was?.on === 'driver' && was.way.as === as ? { ...was, driver } : null;
    default:
      return { on: 'driver', driver, way: { as } };
  }
}
