import { divideRounded, minorDigits, sum, unitOf, type Minor, type Percent, type Ratio } from '@/core/money';
import { evaluate, keyOfName, type Name } from '@/core/formula';
import type { Line, MethodOf, Ref } from '@/core/model';
import { formulaOf, shareHistory, type Reason } from '@/core/plan';
import { rowName } from '@/core/report';
import { AMOUNT, at, fixed, HEADS, LEAD, PERCENT, type PlanCell, type PlanInput } from './planLayout';
import { written } from './written';

/** Months of lines as formulas of a spreadsheet, one for each method; what they follow is put into `basis`. */
export class Formulas {
  private readonly unit: number;
  private readonly digits: number;
  private readonly rowOf: ReadonlyMap<string, number>;
  private readonly driverRow: ReadonlyMap<string, number>;

  constructor(
    private readonly p: PlanInput,
    private readonly names: Readonly<Record<'budget' | 'basis' | 'drivers', string>>,
    private readonly basis: PlanCell[][],
  ) {
    this.unit = unitOf(p.currency);
    this.digits = minorDigits(p.currency);
    this.rowOf = new Map(p.rows.map((r, i) => [rowName(r).key, HEADS + i]));
    this.driverRow = new Map(p.drivers.map((d, i) => [d.id, HEADS + i]));
  }

  /** A month's formula, and what it comes to in minor units by plain rounding; null where it is a constant. */
  month(
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
      // Rows of pay stay at home: a workbook has what they come to.
      case 'schedule':
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
          ? // Of the owners' part the total holds the result too, which is no account.
            row.kind === 'subtotal' && row.section === ref.kind && ref.kind !== 'equity'
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

  driverCell(id: string, i: number): string {
    return `'${this.names.drivers}'!${at(i < 0 ? LEAD - 1 : LEAD + i, this.driverRow.get(id) ?? HEADS)}`;
  }

  /** The part that a share is of its base: said, or as last year had it. */
  private portion(m: MethodOf<'share'>, line: Line): number {
    if (m.percent !== null) return fractionOf(m.percent);
    const history = shareHistory(m, this.p.reckoning.contextOf(line))!;
    return history.own / history.theirs;
  }

  money(minorUnits: number): number {
    return minorUnits / this.unit;
  }

  private plus(amount: Minor): string {
    return amount === 0 ? '' : amount > 0 ? `+${this.money(amount)}` : String(this.money(amount));
  }
}

const numberOf = (r: Ratio | null): number => (r ? Number(r.n) / Number(r.d) : 0);

export const fractionOf = (p: Percent): number => Number(p) / 100;
