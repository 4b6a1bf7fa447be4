import { multiplyRatio, ratio, ratioOfText, type Ratio } from '@/core/money';
import { keyOfName, nameOfKey, type Name } from './names';
import { tokensOf, type Token } from './tokens';

/** `N`: what its names may be; beyond lines and drivers where a reader of its own knows more. */
export type Expression<N = Name> =
  | { readonly kind: 'number'; readonly value: Ratio }
  /** `prior` months before the month that is reckoned. */
  | { readonly kind: 'name'; readonly name: N; readonly prior: number }
  | { readonly kind: 'negate'; readonly of: Expression<N> }
  | {
      readonly kind: 'sum' | 'difference' | 'product' | 'quotient';
      readonly left: Expression<N>;
      readonly right: Expression<N>;
    }
  | { readonly kind: 'min' | 'max'; readonly of: readonly Expression<N>[] }
  | { readonly kind: 'round'; readonly of: Expression<N>; readonly to: Expression<N> }
  | {
      readonly kind: 'if';
      readonly test: Test<N>;
      readonly then: Expression<N>;
      readonly otherwise: Expression<N>;
    };

export type Test<N = Name> =
  | {
      readonly kind: 'compare';
      readonly sign: '<' | '<=' | '>' | '>=' | '=' | '<>';
      readonly left: Expression<N>;
      readonly right: Expression<N>;
    }
  | { readonly kind: 'and' | 'or'; readonly left: Test<N>; readonly right: Test<N> };

/** A name in a formula, and where it stands with its quotes. */
export type Named<N = Name> = {
  readonly name: N;
  readonly prior: number;
  readonly at: number;
  readonly length: number;
};

export type FormulaIssue = {
  readonly code: 'empty' | 'strange' | 'unknownName' | 'unexpected' | 'unfinished' | 'badNumber' | 'tooDeep';
  /** Where in the text, and how much of it is meant. */
  readonly at: number;
  readonly length: number;
};

export type Parsed<N = Name> =
  | { readonly ok: true; readonly expression: Expression<N>; readonly names: readonly Named<N>[] }
  | { readonly ok: false; readonly issue: FormulaIssue };

class Stopped extends Error {
  constructor(readonly issue: FormulaIssue) {
    super(issue.code);
  }
}

const DEEPEST = 60;

/**
 * Reads a formula by the grammar of docs/formulas.md. `resolve` tells what a name between quotes means; a kept formula
 * is read with `nameOfKey`. An issue points at the first place that cannot be read.
 */
export function parseFormula(text: string, resolve?: (name: string) => Name | null): Parsed;
export function parseFormula<N>(text: string, resolve: (name: string) => N | null): Parsed<N>;
export function parseFormula<N>(
  text: string,
  resolve: (name: string) => N | Name | null = nameOfKey,
): Parsed<N | Name> {
  const found = tokensOf(text);
  if ('strange' in found) return { ok: false, issue: { code: 'strange', at: found.strange, length: 1 } };
  if (found.tokens.length === 1) return { ok: false, issue: { code: 'empty', at: 0, length: 0 } };
  try {
    const reader = new Reader(found.tokens, resolve);
    return { ok: true, expression: reader.all(), names: reader.names };
  } catch (error) {
    if (error instanceof Stopped) return { ok: false, issue: error.issue };
    throw error;
  }
}

class Reader<N> {
  readonly names: Named<N>[] = [];
  private place = 0;
  private depth = 0;

  constructor(
    private readonly tokens: readonly Token[],
    private readonly resolve: (name: string) => N | null,
  ) {}

  all(): Expression<N> {
    const expression = this.choice();
    if (this.next.kind !== 'end') this.stop('unexpected');
    return expression;
  }

  private get next(): Token {
    return this.tokens[this.place]!;
  }

  private stop(code: FormulaIssue['code'], token = this.next): never {
    const { at, length } = token;
    throw new Stopped({
      code: token.kind === 'end' && code === 'unexpected' ? 'unfinished' : code,
      at,
      length,
    });
  }

  /** Takes the next piece when it is this word or sign. */
  private takes(...texts: string[]): string | null {
    const { kind, text } = this.next;
    if ((kind !== 'word' && kind !== 'sign') || !texts.includes(text)) return null;
    this.place++;
    return text;
  }

  private must(text: string): void {
    if (!this.takes(text)) this.stop('unexpected');
  }

  private choice(): Expression<N> {
    if (++this.depth > DEEPEST) this.stop('tooDeep');
    const out = this.takes('if') ? this.branches() : this.sum();
    this.depth--;
    return out;
  }

  private branches(): Expression<N> {
    const test = this.test();
    this.must('then');
    const then = this.choice();
    this.must('else');
    return { kind: 'if', test, then, otherwise: this.choice() };
  }

  private test(): Test<N> {
    let left = this.both();
    while (this.takes('or')) left = { kind: 'or', left, right: this.both() };
    return left;
  }

  private both(): Test<N> {
    let left = this.comparison();
    while (this.takes('and')) left = { kind: 'and', left, right: this.comparison() };
    return left;
  }

  private comparison(): Test<N> {
    const left = this.sum();
    const sign = this.takes('<', '<=', '>', '>=', '=', '<>');
    if (!sign) this.stop('unexpected');
    return { kind: 'compare', sign: sign as '<', left, right: this.sum() };
  }

  private sum(): Expression<N> {
    let left = this.product();
    for (let sign = this.takes('+', '-'); sign; sign = this.takes('+', '-'))
      left = { kind: sign === '+' ? 'sum' : 'difference', left, right: this.product() };
    return left;
  }

  private product(): Expression<N> {
    let left = this.signed();
    for (let sign = this.takes('*', '/'); sign; sign = this.takes('*', '/'))
      left = { kind: sign === '*' ? 'product' : 'quotient', left, right: this.signed() };
    return left;
  }

  private signed(): Expression<N> {
    return this.takes('-') ? { kind: 'negate', of: this.part() } : this.part();
  }

  private part(): Expression<N> {
    const token = this.next;
    if (token.kind === 'number') return { kind: 'number', value: this.number() };
    if (token.kind === 'name') return this.name(0);
    const word = this.takes('prior', 'min', 'max', 'round', '(');
    if (word === '(') {
      const inside = this.choice();
      this.must(')');
      return inside;
    }
    if (word === 'prior') return this.name(this.next.kind === 'number' ? this.months() : 1);
    if (word === 'min' || word === 'max') {
      this.must('(');
      const of = [this.choice()];
      while (this.takes(',')) of.push(this.choice());
      this.must(')');
      return { kind: word, of };
    }
    if (word === 'round') {
      this.must('(');
      const of = this.choice();
      this.must('to');
      const to = this.choice();
      this.must(')');
      return { kind: 'round', of, to };
    }
    return this.stop('unexpected');
  }

  private number(): Ratio {
    const value = ratioOfText(this.next.text);
    if (!value) this.stop('badNumber');
    this.place++;
    return this.takes('%') ? multiplyRatio(value, ratio(1, 100)) : value;
  }

  private months(): number {
    const { text } = this.next;
    if (!/^\d{1,3}$/.test(text) || Number(text) < 1 || Number(text) > 120) this.stop('badNumber');
    this.place++;
    return Number(text);
  }

  private name(prior: number): Expression<N> {
    const token = this.next;
    if (token.kind !== 'name') this.stop('unexpected');
    const name = this.resolve(token.text);
    if (!name) this.stop('unknownName');
    this.place++;
    this.names.push({ name, prior, at: token.at, length: token.length });
    return { kind: 'name', name, prior };
  }
}

/** A formula with its names put another way; the rest of the text stays as it was typed. */
function withNames<N>(
  text: string,
  names: readonly Named<N>[],
  write: (name: N, now: string) => string,
): string {
  let out = '';
  let at = 0;
  for (const n of names) {
    const now = text.slice(n.at + 1, n.at + n.length - 1).replaceAll('""', '"');
    out += `${text.slice(at, n.at)}"${write(n.name, now).replaceAll('"', '""')}"`;
    at = n.at + n.length;
  }
  return out + text.slice(at);
}

/** The text as it is kept, with ids for names. Null when it cannot be read. */
export function keptFormula<N = Name>(
  text: string,
  resolve: (name: string) => N | null,
  keyOf: (name: N) => string = keyOfName as (name: N) => string,
): string | null {
  const parsed = parseFormula(text, resolve);
  return parsed.ok ? withNames(text, parsed.names, (name) => keyOf(name)) : null;
}

/** A kept formula as a person reads it; a name that is gone stays as its id. */
export function shownFormula<N = Name>(
  kept: string,
  labelOf: (name: N) => string | null,
  ofKey: (key: string) => N | null = nameOfKey as (key: string) => N | null,
): string {
  const parsed = parseFormula(kept, ofKey);
  return parsed.ok ? withNames(kept, parsed.names, (name, now) => labelOf(name) ?? now) : kept;
}
