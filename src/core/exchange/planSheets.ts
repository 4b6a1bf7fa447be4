import { divideRounded, minorDigits, sum, unitOf, type Minor, type Percent, type Ratio } from '@/core/money';
import type { Period } from '@/core/calendar';
import { evaluate, keyOfName, type Expression, type Name, type Test } from '@/core/formula';
import {
  lineKey,
  type Account,
  type AccountId,
  type Driver,
  type Line,
  type MethodOf,
  type Ref,
  type SegmentId,
} from '@/core/model';
import {
  explainMonth,
  formulaOf,
  shareHistory,
  type Figures,
  type LineResult,
  type Reason,
  type Reckoning,
} from '@/core/plan';
import { rowName } from '@/core/report';
import {
  AMOUNT,
  at,
  budgetSheet,
  fixed,
  headRows,
  HEADS,
  LEAD,
  PERCENT,
  type PageInput,
  type PlanCell,
  type PlanSheet,
} from './planLayout';

export type PlanInput = PageInput & {
  readonly accounts: readonly Account[];
  readonly lines: readonly Line[];
  readonly drivers: readonly Driver[];
  readonly reckoning: Reckoning;
  readonly segment: SegmentId;
  readonly methodName: (line: Line) => string;
  /** Added to the sheets' names, where a workbook holds several segments: letters, digits and spaces only. */
  readonly suffix?: string;
  /** Figures to stand in the place of what lines reckon to, as values; null or absent: lines are formulas. */
  readonly asValues?: ((account: AccountId) => Figures | null) | null;
};

/**
 * A budget as sheets that reckon themselves: the budget with a formula for every month that follows from something,
 * what it follows (last year's months, patterns, weights, counts of paydays) on a sheet of its own, and the drivers.
 * Where our cents go by the largest remainder, the cent beside plain rounding stands in the formula, so that the sheet
 * comes to exactly our figures; change an input, and it follows.
 */
export function planSheets(input: PlanInput): PlanSheet[] {
  return new Writer(input).sheets();
}

class Writer {
  private readonly unit: number;
  private readonly digits: number;
  private readonly rowOf = new Map<string, number>();
  private readonly driverRow: ReadonlyMap<string, number>;
  private readonly lineOf: ReadonlyMap<string, Line>;
  private readonly basis: PlanCell[][] = [];
  private readonly spread: boolean;
  private readonly names: Readonly<Record<'budget' | 'basis' | 'drivers', string>>;

  constructor(private readonly p: PlanInput) {
    const tail = p.suffix ?? '';
    this.names = { budget: `Budget${tail}`, basis: `Basis${tail}`, drivers: 'Drivers' };
    this.unit = unitOf(p.currency);
    this.digits = minorDigits(p.currency);
    p.rows.forEach((r, i) => this.rowOf.set(rowName(r).key, HEADS + i));
    this.driverRow = new Map(p.drivers.map((d, i) => [d.id, HEADS + i]));
    this.lineOf = new Map(p.lines.filter((l) => l.segment === p.segment).map((l) => [lineKey(l), l]));
    this.spread = [...this.lineOf.values()].some(
      (l) =>
        (p.asValues?.(l.account) ?? p.reckoning.lines.get(l))?.wholes.some((w) => w !== null) ||
        l.method.kind === 'unphased',
    );
  }

  sheets(): PlanSheet[] {
    const { p } = this;
    const budget = budgetSheet(
      p,
      this.names.budget,
      ['Made by', 'Percent', 'Amount'],
      this.spread,
      (account, r) => this.line(account, r),
    );
    const basis = p.rows.map((_, r) => this.basis[HEADS + r] ?? []);
    const inputs = (name: string, title: string, lead: readonly string[], rows: readonly PlanCell[][]) => ({
      name,
      rows: [...headRows(p, title, lead), ...rows],
      heads: HEADS,
      lead: LEAD,
      money: false,
      totals: [],
    });
    const out: PlanSheet[] = [
      budget,
      inputs(
        this.names.basis,
        'What lines follow: months, patterns, weights, days',
        ['Code', 'Line', 'Made by', '', ''],
        basis,
      ),
    ];
    if (p.drivers.length > 0)
      out.push(
        inputs(
          this.names.drivers,
          'Drivers',
          ['', 'Driver', 'Unit', 'Decimals', 'Before'],
          p.drivers.map((d, i) => this.driver(d, HEADS + i)),
        ),
      );
    return out;
  }

  /** The cells of a line, and beside them (in `basis`) what its months follow. */
  private line(account: Account, r: number): PlanCell[] {
    const { p } = this;
    const line = this.lineOf.get(lineKey({ account: account.id, segment: p.segment }));
    const result = line && p.reckoning.lines.get(line);
    const cells: PlanCell[] = [account.code, account.name, line ? p.methodName(line) : '', null, null];
    if (!line || !result) return cells;
    this.basis[r] = [account.code, account.name, p.methodName(line), null, null];
    const values = p.asValues?.(account.id);
    if (!values) this.inputs(line, result, cells);
    p.facts.periods.forEach((_, i) => {
      const value = values?.amounts[i] ?? null;
      cells[LEAD + i] = values ? value && this.money(value) : this.month(line, result, i, r);
    });
    if (this.spread) {
      const wholes = (values ?? result).wholes.filter((w): w is Minor => w !== null);
      cells[LEAD + p.facts.periods.length] = wholes.length
        ? this.money(wholes.reduce<number>((a, b) => a + b, 0))
        : null;
    }
    return cells;
  }

  /** The percentage and the amount of a method, as the inputs of its formulas. */
  private inputs(line: Line, result: LineResult, cells: PlanCell[]): void {
    const { method: m } = line;
    if ('uplift' in m) cells[PERCENT] = { percent: fractionOf(m.uplift) };
    if (m.kind === 'share') {
      const history = m.percent === null ? shareHistory(m, this.p.reckoning.contextOf(line)) : null;
      if (m.percent !== null) cells[PERCENT] = { percent: fractionOf(m.percent) };
      else if (history)
        cells[PERCENT] = {
          formula: `${this.money(history.own)}/${this.money(history.theirs)}`,
          result: history.own / history.theirs,
        };
    }
    if (m.kind === 'step' && m.change.of === 'percent')
      cells[PERCENT] = { percent: fractionOf(m.change.percent) };
    const start = this.reasons(line, result, 0).find((x) => x.step === 'start');
    if (start?.step === 'start') cells[AMOUNT] = this.money(start.value);
    if (m.kind === 'occurrence') cells[AMOUNT] = this.money(m.amount);
    if ((m.kind === 'phased' || m.kind === 'pattern') && this.p.facts.years.length === 1) {
      const whole = this.reasons(line, result, 0).find((x) => x.step === 'whole');
      if (whole?.step === 'whole' && (m.amounts === null || m.amounts.per === 'year'))
        cells[AMOUNT] = this.money(whole.value);
    }
  }

  /** The part that a share is of its base: said, or as last year had it. */
  private portion(m: MethodOf<'share'>, line: Line): number {
    if (m.percent !== null) return fractionOf(m.percent);
    const history = shareHistory(m, this.p.reckoning.contextOf(line))!;
    return history.own / history.theirs;
  }

  private reasons(line: Line, result: LineResult, i: number): Reason[] {
    return explainMonth(line, result, this.p.reckoning, i).filter(
      (x) => x.step !== 'result' && x.step !== 'typed',
    );
  }

  private month(line: Line, result: LineResult, i: number, r: number): PlanCell {
    const value = result.amounts[i] ?? null;
    if (value === null) return null;
    const plain = this.money(value);
    if (result.typed[i] || result.issue) return plain;
    const made = this.formula(line, this.reasons(line, result, i), i, r);
    if (!made) return plain;
    const off = value - made.comesTo;
    const formula = off === 0 ? made.text : `${made.text}${off > 0 ? '+' : ''}${this.money(off)}`;
    return { formula, result: plain };
  }

  /** A month's formula, and what it comes to in minor units by plain rounding; null where it is a constant. */
  private formula(
    line: Line,
    reasons: readonly Reason[],
    i: number,
    r: number,
  ): { readonly text: string; readonly comesTo: number } | null {
    const { method: m } = line;
    const column = LEAD + i;
    const basisCell = `'${this.names.basis}'!${at(column, r)}`;
    const find = <S extends Reason['step']>(step: S) =>
      reasons.find((x): x is Extract<Reason, { step: S }> => x.step === step);
    const round = (text: string, comesTo: number, exact: number) => ({
      text: this.rounded(text, comesTo, exact),
      comesTo,
    });
    const percent = `(1+${fixed(PERCENT, r)})`;
    switch (m.kind) {
      case 'byMonth':
      case 'unphased':
        return null;
      case 'lastYear': {
        const average = find('average');
        const basis = find('basis') ?? (average && { of: 'average' as const, value: average.value });
        if (!basis || basis.value === null) return null;
        const own = basis.of === 'own' ? basis.period - this.p.facts.periods[0]!.index : -1;
        const skipped = find('skipped')?.value ?? 0;
        if (own < 0) this.basis[r]![column] = this.money(basis.value - skipped);
        const from = own < 0 ? basisCell : `${at(LEAD + own, r)}${skipped ? `-${this.money(skipped)}` : ''}`;
        const exact = find('uplift')?.value ?? basis.value - skipped + m.add;
        const lifted = (basis.value - skipped + m.add) * (1 + fractionOf(m.uplift));
        return round(`(${from}${this.plus(m.add)})*${percent}`, exact, lifted);
      }
      case 'runRate': {
        const whole = find('whole');
        const average = find('average');
        if (!average) return null;
        if (!whole) {
          const exact = find('uplift')?.value ?? average.value + m.add;
          const raw = (average.value + m.add) * (1 + fractionOf(m.uplift));
          return round(`(${this.money(average.value)}${this.plus(m.add)})*${percent}`, exact, raw);
        }
        const part = find('phasedPart')!;
        const total = find('uplift')?.value ?? whole.value;
        const lifted = (whole.value * (1 + fractionOf(m.uplift))) / part.of;
        const text = `${this.money(whole.value)}*${percent}/${part.of}`;
        return round(text, divideRounded(total, 1, part.of, 'halfAwayFromZero'), lifted);
      }
      case 'phased':
      case 'pattern': {
        const whole = find('whole');
        const part = find('phasedPart') ?? find('patternPart');
        if (!whole || !part) return null;
        const scale = part.step === 'patternPart' ? this.unit : 1;
        this.basis[r]![column] = part.part / scale;
        const total = find('uplift')?.value ?? whole.value;
        const said = this.p.facts.years.length === 1 && (m.amounts === null || m.amounts.per === 'year');
        const base = said ? fixed(AMOUNT, r) : String(this.money(whole.value));
        const span = `'${this.names.basis}'!${fixed(LEAD + whole.span.from, r)}:${fixed(LEAD + whole.span.to - 1, r)}`;
        const lifted = this.rounded(`${base}*${percent}`, total, whole.value * (1 + fractionOf(m.uplift)));
        return round(
          `${lifted}*${basisCell}/SUM(${span})`,
          divideRounded(total, part.part, part.of, 'halfAwayFromZero'),
          (total * part.part) / part.of,
        );
      }
      case 'step': {
        const start = find('start')!;
        const steps = find('steps');
        const times = steps?.times ?? 0;
        const exact = steps?.value ?? start.value;
        const base = fixed(AMOUNT, r);
        if (m.change.of === 'amount')
          return round(
            times === 0 ? base : `${base}+${times}*(${this.money(m.change.amount)})`,
            exact,
            exact,
          );
        const p = fixed(PERCENT, r);
        const rate = fractionOf(m.change.percent);
        return m.change.compounding
          ? round(`${base}*(1+${p})^${times}`, exact, start.value * (1 + rate) ** times)
          : round(`${base}*(1+${times}*${p})`, exact, start.value * (1 + times * rate));
      }
      case 'share': {
        const share = find('share');
        if (!share || share.base === null || share.value === null) return null;
        const base = this.ref(m.of, line, i - m.lag, share.base);
        return round(`${base}*${fixed(PERCENT, r)}`, share.value, share.base * this.portion(m, line));
      }
      case 'occurrence': {
        const runs = reasons.flatMap((x) => (x.step === 'occurrences' ? [x] : []));
        const value = sum(runs.map((x) => x.value));
        this.basis[r]![column] = runs.reduce((n, x) => n + x.days.length, 0);
        const [only] = runs;
        if (runs.length === 1 && only!.each === m.amount)
          return round(`${fixed(AMOUNT, r)}*${basisCell}`, value, value);
        // Another amount holds from a day on: it stands in the formula itself.
        const parts = runs.map((x) => `${x.days.length}*${this.money(x.each)}`);
        return round(
          runs.length === 1 ? `${this.money(only!.each)}*${basisCell}` : parts.join('+'),
          value,
          value,
        );
      }
      case 'driver': {
        const value = find('computed')?.value ?? null;
        if (value === null) return null;
        const exact = reasons.reduce((t, x) => (x.step === 'factor' ? t * numberOf(x.value) : t), this.unit);
        return round(m.factors.map((f) => this.driverCell(f, i)).join('*'), value, exact);
      }
      case 'formula': {
        const parsed = formulaOf(m.formula);
        const value = find('computed')?.value ?? null;
        if (!parsed.ok || value === null) return null;
        const now = this.p.facts.periods[i]!.index;
        const known = new Map(
          reasons.flatMap((x) =>
            x.step === 'term' ? [[`${keyOfName(x.name)} ${now - x.period}`, x.value] as const] : [],
          ),
        );
        const valueAt = (name: Name, prior: number) => known.get(`${keyOfName(name)} ${prior}`) ?? null;
        const text = written(parsed.expression, (name, prior) =>
          name.of === 'driver'
            ? this.driverCell(name.driver, i - prior)
            : this.ref(name, line, i - prior, Math.round(numberOf(valueAt(name, prior)) * this.unit)),
        );
        const again = evaluate(parsed.expression, valueAt);
        return round(text, value, again.value ? numberOf(again.value) * this.unit : value);
      }
    }
  }

  /**
   * Rounds a formula to the currency's digits. Half a cent is beyond what binary figures hold exactly: there a nudge of
   * a ten-thousandth of a cent goes the way that ours was rounded.
   */
  private rounded(text: string, comesTo: number, exact: number): string {
    const off = comesTo - exact;
    const nudge = Math.abs(off) < 0.49999 ? '' : `${off > 0 ? '+' : '-'}${(0.0001 / this.unit).toFixed(7)}`;
    return `ROUND(${text}${nudge},${this.digits})`;
  }

  /** The cell (or cells) of what is referred to; before the first month its actual, as a constant. */
  private ref(ref: Ref, line: Line, i: number, before: number): string {
    if (i < 0) return `(${this.money(before)})`;
    const column = LEAD + i;
    if (ref.of !== 'account') {
      const total = this.p.rows.findIndex((row) =>
        ref.of === 'kind'
          ? row.kind === 'subtotal' && row.section === ref.kind
          : row.kind === 'group' && row.section === ref.kind && row.group === ref.group,
      );
      if (total >= 0) return at(column, HEADS + total);
    }
    const cells = this.p.facts
      .members(ref)
      .map((id) => this.rowOf.get(id))
      .filter((row): row is number => row !== undefined)
      .map((row) => at(column, row));
    return cells.length === 1 ? cells[0]! : `(${cells.join('+') || '0'})`;
  }

  private driverCell(id: string, i: number): string {
    return `'${this.names.drivers}'!${at(i < 0 ? LEAD - 1 : LEAD + i, this.driverRow.get(id) ?? HEADS)}`;
  }

  private driver(driver: Driver, r: number): PlanCell[] {
    const result = this.p.reckoning.drivers.get(driver.id);
    const scale = 10 ** driver.decimals;
    const cells: PlanCell[] = [
      '',
      driver.name,
      driver.unit,
      driver.decimals,
      driver.opening === null ? null : driver.opening / scale,
    ];
    const { series } = driver;
    const parsed = series.kind === 'formula' ? formulaOf(series.formula) : null;
    this.p.facts.periods.forEach((_: Period, i) => {
      const value = result?.values[i] ?? null;
      if (value === null || !parsed?.ok || result?.issue) {
        cells[LEAD + i] = value === null ? null : value / scale;
        return;
      }
      const text = written(parsed.expression, (name, prior) =>
        name.of !== 'driver'
          ? '0'
          : name.driver === driver.id
            ? at(i - prior < 0 ? LEAD - 1 : LEAD + i - prior, r)
            : this.driverCell(name.driver, i - prior).replace(`'${this.names.drivers}'!`, ''),
      );
      cells[LEAD + i] = { formula: `ROUND(${text},${driver.decimals})`, result: value / scale };
    });
    return cells;
  }

  private money(minorUnits: number): number {
    return minorUnits / this.unit;
  }

  private plus(amount: Minor): string {
    return amount === 0 ? '' : amount > 0 ? `+${this.money(amount)}` : String(this.money(amount));
  }
}

const numberOf = (r: Ratio | null): number => (r ? Number(r.n) / Number(r.d) : 0);

const fractionOf = (p: Percent): number => Number(p) / 100;

const number = (r: Ratio): string => `(${r.n}/${r.d})`;

/** A formula of ours as a spreadsheet's (OpenFormula, OASIS ODF 1.3 part 4); names become what `cell` says. */
function written(e: Expression, cell: (name: Name, prior: number) => string): string {
  const w = (x: Expression) => written(x, cell);
  switch (e.kind) {
    case 'number':
      return e.value.d === 1 ? String(e.value.n) : number(e.value);
    case 'name':
      return cell(e.name, e.prior);
    case 'negate':
      return `(-${w(e.of)})`;
    case 'sum':
      return `(${w(e.left)}+${w(e.right)})`;
    case 'difference':
      return `(${w(e.left)}-${w(e.right)})`;
    case 'product':
      return `(${w(e.left)}*${w(e.right)})`;
    case 'quotient':
      return `(${w(e.left)}/${w(e.right)})`;
    case 'min':
    case 'max':
      return `${e.kind.toUpperCase()}(${e.of.map(w).join(',')})`;
    case 'round': {
      const unit = w(e.to);
      return `(ROUND(${w(e.of)}/${unit},0)*${unit})`;
    }
    case 'if':
      return `IF(${tested(e.test, cell)},${w(e.then)},${w(e.otherwise)})`;
  }
}

function tested(t: Test, cell: (name: Name, prior: number) => string): string {
  if (t.kind !== 'compare') {
    const [left, right] = [tested(t.left, cell), tested(t.right, cell)];
    return `${t.kind.toUpperCase()}(${left},${right})`;
  }
  return `${written(t.left, cell)}${t.sign}${written(t.right, cell)}`;
}
