import type { Ratio } from '@/core/money';
import type { Expression, Name, Test } from '@/core/formula';

const number = (r: Ratio): string => `(${r.n}/${r.d})`;

/** A formula of ours as a spreadsheet's (OpenFormula, OASIS ODF 1.3 part 4); names become what `cell` says. */
export function written(e: Expression, cell: (name: Name, prior: number) => string): string {
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
