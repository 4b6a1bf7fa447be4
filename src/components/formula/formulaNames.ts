import { BASE, keyOfWritten, type WrittenName } from '@/core/formula';
import type { Account, Driver } from '@/core/model';
import { kindWords } from './kindWords';

/** What a formula may name, as it is written and for what it stands. */
export type Named = { readonly label: string; readonly name: WrittenName; readonly of: string };

/** A thing with its plain label, and the fuller one that it has where another thing is called the same. */
type Called = Omit<Named, 'label'> & { readonly plain: string; readonly fuller: string };

/**
 * The names that a formula may use. Each label means one thing: what shares its name with another is written with its
 * code, its kind or, when nothing else tells them apart, a number.
 */
export function namesOf(
  accounts: readonly Account[],
  drivers: readonly Driver[],
  figures: Readonly<Record<string, string>> = {},
  base: string | null = null,
): Named[] {
  const kinds = [...new Set(accounts.map((a) => a.kind))];
  const groups = new Map(accounts.filter((a) => a.group).map((a) => [`${a.kind}:${a.group}`, a]));
  const called: Called[] = [
    ...(base === null ? [] : [{ plain: base, fuller: `${base}, before this`, name: BASE, of: 'the amount' }]),
    ...drivers.map((d) => ({
      plain: d.name,
      fuller: `driver ${d.name}`,
      name: { of: 'driver', driver: d.id } as const,
      of: 'driver',
    })),
    ...accounts.map((a) => ({
      plain: a.name,
      fuller: a.code ? `${a.code} ${a.name}` : a.name,
      name: { of: 'account', account: a.id } as const,
      of: 'line',
    })),
    ...kinds.map((kind) => ({
      plain: `Total ${kindWords(kind)}`,
      fuller: `Total of all ${kindWords(kind)}`,
      name: { of: 'kind', kind } as const,
      of: 'total',
    })),
    ...[...groups.values()].map(({ kind, group }) => ({
      plain: `Total ${group}`,
      fuller: `Total ${group}, ${kindWords(kind)}`,
      name: { of: 'group', kind, group } as const,
      of: 'group',
    })),
    ...Object.entries(figures).map(([figure, name]) => ({
      plain: name,
      fuller: `${name} of the statements`,
      name: { of: 'figure', figure } as const,
      of: 'statements',
    })),
  ];
  const key = (text: string) => text.trim().toLowerCase();
  const count = new Map<string, number>();
  for (const c of called) count.set(key(c.plain), (count.get(key(c.plain)) ?? 0) + 1);
  const alone = (c: Called) => count.get(key(c.plain)) === 1;
  const taken = new Set(called.filter(alone).map((c) => key(c.plain)));
  return called.map((c) => {
    const { plain, fuller, ...rest } = c;
    if (alone(c)) return { ...rest, label: plain };
    let label = fuller;
    for (let n = 2; taken.has(key(label)); n++) label = `${fuller} (${n})`;
    taken.add(key(label));
    return { ...rest, label };
  });
}

/** Finds what a written name means: its label, or an account's code alone or with its name. */
export function resolverOf(
  names: readonly Named[],
  accounts: readonly Account[],
): (text: string) => WrittenName | null {
  const table = new Map<string, WrittenName>();
  const put = (text: string, name: WrittenName) => {
    const key = text.trim().toLowerCase();
    if (key && !table.has(key)) table.set(key, name);
  };
  for (const n of names) put(n.label, n.name);
  for (const a of accounts) {
    const name: WrittenName = { of: 'account', account: a.id };
    put(`${a.code} ${a.name}`, name);
    put(a.code, name);
  }
  return (text) => table.get(text.trim().toLowerCase()) ?? null;
}

/** How a kept name is written. */
export function labelsOf(names: readonly Named[]): (name: WrittenName) => string | null {
  const table = new Map(names.map((n) => [keyOfWritten(n.name), n.label]));
  return (name) => table.get(keyOfWritten(name)) ?? null;
}
