import fc from 'fast-check';
import { formulaOf } from '@/core/plan';
import { keyOfWritten, parseFormula } from '@/core/formula';
import { newAccount, type AccountKind, type Driver } from '@/core/model';
import { account } from '@/core/test/build';
import { TOOLS } from '../edit/commands';
import { labelsOf, namesOf, resolverOf } from '@/components/formula/formulaNames';
import { leadColumns, moveIn, toggleIn } from '../sheet/setup';

const driver = (id: string, name: string): Driver => ({
  id,
  name,
  unit: '',
  decimals: 0,
  opening: null,
  series: { kind: 'typed', values: {} },
  note: '',
});

describe('names in formulas', () => {
  test('a label means one thing: what another has too is written with its code, a driver as a driver', () => {
    const accounts = [
      account('a', 'expense', 'Rent', '6000'),
      account('b', 'expense', 'Rent', '6010'),
      account('c', 'income', 'Members', '4000'),
      account('d', 'income', 'Total income', '4900'),
    ];
    const labels = namesOf(accounts, [driver('d1', 'Members'), driver('d2', 'Berths')]).map((n) => n.label);
    expect(labels).toEqual([
      'driver Members',
      'Berths',
      '6000 Rent',
      '6010 Rent',
      '4000 Members',
      '4900 Total income',
      'Total expenses',
      'Total of all income',
    ]);
  });
  test('whatever accounts and drivers are called, a label leads back to what it stands for', () => {
    const word = fc.constantFrom('Rent', 'rent', 'Sales', 'Total income', 'Members', 'Fees');
    const kind = fc.constantFrom<AccountKind>('income', 'expense', 'bank');
    fc.assert(
      fc.property(
        fc.array(fc.tuple(word, kind, fc.constantFrom('', 'North')), { maxLength: 8 }),
        fc.uniqueArray(word, { maxLength: 3, selector: (w) => w.toLowerCase() }),
        (rows, called) => {
          const accounts = rows.map(([name, k, group], i) => ({
            ...newAccount(`a${i}`, String(4000 + i), name, k),
            group,
          }));
          const names = namesOf(
            accounts,
            called.map((n, i) => driver(`d${i}`, n)),
            { netProfit: called[0] ?? 'Net profit' },
          );
          const resolve = resolverOf(names, accounts);
          const label = labelsOf(names);
          for (const n of names) {
            expect(resolve(` ${n.label.toUpperCase()} `)).toEqual(n.name);
            expect(label(n.name)).toBe(n.label);
          }
          expect(new Set(names.map((n) => keyOfWritten(n.name))).size).toBe(names.length);
        },
      ),
    );
  });
  test('a code alone means its account, and what nobody is called means nothing', () => {
    const accounts = [account('a', 'expense', 'Rent', '6000')];
    const resolve = resolverOf(namesOf(accounts, []), accounts);
    expect(resolve('6000')).toEqual({ of: 'account', account: 'a' });
    expect(resolve('6000 rent')).toEqual({ of: 'account', account: 'a' });
    expect(resolve('')).toBeNull();
    expect(resolve('Heating')).toBeNull();
    expect(labelsOf([])({ of: 'driver', driver: 'd1' })).toBeNull();
  });
  test('kept formulas read the same as the grammar does', () => {
    const text = 'prior 2 "account:a" * 3% + max("driver:d1", 0)';
    expect(formulaOf(text)).toEqual(parseFormula(text));
  });
});

describe('tools over the selection', () => {
  /** Keys that the sheet itself takes, and those of the worksheet's own. */
  const TAKEN = ['Enter', 'F2', 'Tab', 'n', 'N', 'c', 'l', '/', 'w', ' ', '?', 'Ctrl K'];
  test('each has a key of its own that types no amount and means nothing else', () => {
    const keys = TOOLS.map((t) => t.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys.filter((k) => TAKEN.includes(k) || /^[\d.,(+−-]$/.test(k))).toEqual([]);
  });
  test('each has a name and an id of its own, and one that asks says so with an ellipsis', () => {
    expect(new Set(TOOLS.map((t) => t.id)).size).toBe(TOOLS.length);
    for (const t of TOOLS) expect(t.name.endsWith('…')).toBe(t.ask !== undefined);
  });
});

describe('what a person chooses to see', () => {
  const list = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1 });
  test('moving keeps all members, and a step back undoes a step', () => {
    fc.assert(
      fc.property(list, fc.nat(3), (items, n) => {
        const item = items[n % items.length]!;
        const later = moveIn(items, item, 1);
        expect([...later].sort()).toEqual([...items].sort());
        expect(items.indexOf(item) === items.length - 1 ? later : moveIn(later, item, -1)).toEqual(items);
      }),
    );
  });
  test('toggling twice leaves the same members', () => {
    fc.assert(
      fc.property(list, fc.constantFrom('a', 'b', 'c', 'd'), (items, item) => {
        const once = toggleIn(items, item);
        expect(once.includes(item)).toBe(!items.includes(item));
        expect([...toggleIn(once, item)].sort()).toEqual([...items].sort());
      }),
    );
  });
  test('the same choice of columns is the same list, so that nothing is drawn again', () => {
    expect(leadColumns(['badge', 'picture'])).toBe(leadColumns(['badge', 'picture']));
    expect(leadColumns(['picture']).map((c) => c.key)).toEqual(['picture']);
  });
});
