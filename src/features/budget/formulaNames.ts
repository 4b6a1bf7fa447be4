import { keyOfName, type Name } from '@/core/formula';
import type { Account, Driver } from '@/core/model';
import { kindWords } from './words';

/** What a formula may name, as it is written and for what it stands. */
export type Named = { readonly label: string; readonly name: Name; readonly of: string };

/**
 * The names that a formula may use. Each label means one thing: an account whose name another thing has too is
 * written with its code.
 */
export function namesOf(accounts: readonly Account[], drivers: readonly Driver[]): Named[] {
  const taken = new Map<string, number>();
  const count = (text: string) => taken.set(text.toLowerCase(), (taken.get(text.toLowerCase()) ?? 0) + 1);
  const kinds = [...new Set(accounts.map((a) => a.kind))];
  const groups = new Map(accounts.filter((a) => a.group).map((a) => [`${a.kind}:${a.group}`, a]));
  const totals: Named[] = [
    ...kinds.map((kind) => ({
      label: `Total ${kindWords(kind)}`,
      name: { of: 'kind', kind } as const,
      of: 'total',
    })),
    ...[...groups.values()].map(({ kind, group }) => ({
      label: `Total ${group}`,
      name: { of: 'group', kind, group } as const,
      of: 'group',
    })),
  ];
  for (const t of totals) count(t.label);
  for (const d of drivers) count(d.name);
  for (const a of accounts) count(a.name);
  const alone = (text: string) => taken.get(text.toLowerCase()) === 1;
  return [
    ...drivers.map((d) => ({
      label: alone(d.name) ? d.name : `driver ${d.name}`,
      name: { of: 'driver', driver: d.id } as const,
      of: 'driver',
    })),
    ...accounts.map((a) => ({
      label: alone(a.name) || !a.code ? a.name : `${a.code} ${a.name}`,
      name: { of: 'account', account: a.id } as const,
      of: 'line',
    })),
    ...totals,
  ];
}

/** Finds what a written name means: its label, or an account's code alone or with its name. */
export function resolverOf(
  names: readonly Named[],
  accounts: readonly Account[],
): (text: string) => Name | null {
  const table = new Map<string, Name>();
  const put = (text: string, name: Name) => {
    const key = text.trim().toLowerCase();
    if (key && !table.has(key)) table.set(key, name);
  };
  for (const n of names) put(n.label, n.name);
  for (const a of accounts) {
    const name: Name = { of: 'account', account: a.id };
    put(`${a.code} ${a.name}`, name);
    put(a.code, name);
  }
  return (text) => table.get(text.trim().toLowerCase()) ?? null;
}

/** How a kept name is written. */
export function labelsOf(names: readonly Named[]): (name: Name) => string | null {
  const table = new Map(names.map((n) => [keyOfName(n.name), n.label]));
  return (name) => table.get(keyOfName(name)) ?? null;
}
