import type { GridRow } from '@/core/files';

/**
 * Which column of a table has which role, by the words that head it: each column has one role, each role the first column
 * that fits; −1 where none does. Roles are asked in their order, the surer first.
 *
 * @param not whether a head is none of a role's after all
 */
export function rolesIn<Role extends string>(
  head: GridRow,
  heads: Readonly<Record<Role, RegExp>>,
  not: (role: Role, cell: string) => boolean = () => false,
): Record<Role, number> {
  const roles = Object.keys(heads) as Role[];
  const out = Object.fromEntries(roles.map((r) => [r, -1])) as Record<Role, number>;
  const taken = new Set<number>();
  for (const role of roles)
    head.forEach((cell, c) => {
      if (out[role] >= 0 || taken.has(c) || typeof cell !== 'string') return;
      if (!heads[role].test(cell.trim()) || not(role, cell)) return;
      out[role] = c;
      taken.add(c);
    });
  return out;
}
