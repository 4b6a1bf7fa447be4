import { create } from 'zustand';
import * as z from 'zod/mini';
import type { LeadColumn } from '@/components/sheet/types';
import { readSetting, writeSetting } from '@/store/settings';

/** Columns before the figures and beside the total that a person may choose and put in order. */
export const LEADS = ['badge', 'picture', 'keeper'] as const;
export const INFOS = ['change', 'changePercent', 'lastYear', 'yearBefore', 'share'] as const;
export type Info = (typeof INFOS)[number];

const setupSchema = z.object({
  grain: z.catch(z.enum(['months', 'beside', 'quarters', 'year']), 'months'),
  lead: z.catch(z.array(z.enum(LEADS)), ['badge']),
  info: z.catch(z.array(z.enum(INFOS)), ['change']),
  /** The quiet row beneath a line: of which lines, and what it shows. */
  ghosts: z.catch(z.enum(['selected', 'all', 'none']), 'selected'),
  ghostOf: z.catch(z.string(), 'lastYear'),
  costsFirst: z.catch(z.boolean(), false),
  wholeWindow: z.catch(z.boolean(), false),
});

/** How a person likes the worksheet; kept in the browser, not in the book. */
export type Setup = z.infer<typeof setupSchema>;
export type SheetGrain = Setup['grain'];

const KEY = 'tellan.worksheet';

function kept(): Setup {
  try {
    return setupSchema.parse(JSON.parse(readSetting(KEY) ?? '{}'));
  } catch {
    return setupSchema.parse({});
  }
}

export const useSetup = create<Setup>(kept);

/** Changes how the worksheet is shown, and keeps it. */
export function setSetup(change: Partial<Setup>): void {
  useSetup.setState(change);
  writeSetting(KEY, JSON.stringify(useSetup.getState()));
}

const LEAD_COLUMNS: Record<(typeof LEADS)[number], LeadColumn> = {
  badge: { key: 'badge', label: 'Made by', width: 82 },
  picture: { key: 'picture', label: 'Shape', width: 78 },
  keeper: { key: 'keeper', label: 'Looked after by', width: 92 },
};
const made = new Map<string, readonly LeadColumn[]>();

/** The chosen columns before the figures; the same list for the same choice. */
export function leadColumns(lead: Setup['lead']): readonly LeadColumn[] {
  const key = lead.join();
  let list = made.get(key);
  if (!list) made.set(key, (list = lead.map((k) => LEAD_COLUMNS[k])));
  return list;
}

/** A list with one of its members moved by a step, added at the end, or taken out. */
export const moveIn = <T>(list: readonly T[], item: T, step: 1 | -1): T[] => {
  const at = list.indexOf(item);
  const to = at + step;
  if (at < 0 || to < 0 || to >= list.length) return [...list];
  const out = [...list];
  [out[at], out[to]] = [out[to]!, out[at]!];
  return out;
};
export const toggleIn = <T>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];
