import type { Minor } from '@/core/money';
import type { Period } from '@/core/calendar';
import { lineKey, type Account, type Driver, type Line } from '@/core/model';
import { explainMonth, formulaOf, shareHistory, type LineResult, type Reason } from '@/core/plan';
import { Formulas, fractionOf } from './planFormula';
import {
  AMOUNT,
  at,
  budgetSheet,
  headRows,
  HEADS,
  LEAD,
  PERCENT,
  type PlanCell,
  type PlanInput,
  type PlanSheet,
} from './planLayout';
import { written } from './written';

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
  private readonly lineOf: ReadonlyMap<string, Line>;
  private readonly basis: PlanCell[][] = [];
  private readonly spread: boolean;
  private readonly formulas: Formulas;
  private readonly names: Readonly<Record<'budget' | 'basis' | 'drivers', string>>;

  constructor(private readonly p: PlanInput) {
    const tail = p.suffix ?? '';
    this.names = { budget: `Budget${tail}`, basis: `Basis${tail}`, drivers: 'Drivers' };
    this.formulas = new Formulas(p, this.names, this.basis);
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
      cells[LEAD + i] = values ? value && this.formulas.money(value) : this.month(line, result, i, r);
    });
    if (this.spread) {
      const wholes = (values ?? result).wholes.filter((w): w is Minor => w !== null);
      cells[LEAD + p.facts.periods.length] = wholes.length
        ? this.formulas.money(wholes.reduce<number>((a, b) => a + b, 0))
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
          formula: `${this.formulas.money(history.own)}/${this.formulas.money(history.theirs)}`,
          result: history.own / history.theirs,
        };
    }
    if (m.kind === 'step' && m.change.of === 'percent')
      cells[PERCENT] = { percent: fractionOf(m.change.percent) };
    const start = this.reasons(line, result, 0).find((x) => x.step === 'start');
    if (start?.step === 'start') cells[AMOUNT] = this.formulas.money(start.value);
    if (m.kind === 'occurrence') cells[AMOUNT] = this.formulas.money(m.amount);
    if ((m.kind === 'phased' || m.kind === 'pattern') && this.p.facts.years.length === 1) {
      const whole = this.reasons(line, result, 0).find((x) => x.step === 'whole');
      if (whole?.step === 'whole' && (m.amounts === null || m.amounts.per === 'year'))
        cells[AMOUNT] = this.formulas.money(whole.value);
    }
  }

  private reasons(line: Line, result: LineResult, i: number): Reason[] {
    return explainMonth(line, result, this.p.reckoning, i).filter(
      (x) => x.step !== 'result' && x.step !== 'typed',
    );
  }

  private month(line: Line, result: LineResult, i: number, r: number): PlanCell {
    const value = result.amounts[i] ?? null;
    if (value === null) return null;
    const plain = this.formulas.money(value);
    if (result.typed[i] || result.issue) return plain;
    const made = this.formulas.month(line, this.reasons(line, result, i), i, r);
    if (!made) return plain;
    const off = value - made.comesTo;
    const formula = off === 0 ? made.text : `${made.text}${off > 0 ? '+' : ''}${this.formulas.money(off)}`;
    return { formula, result: plain };
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
            : this.formulas.driverCell(name.driver, i - prior).replace(`'${this.names.drivers}'!`, ''),
      );
      cells[LEAD + i] = { formula: `ROUND(${text},${driver.decimals})`, result: value / scale };
    });
    return cells;
  }
}
