import type { Adjustment, AdjustsOf, AdjustsOn, Book, Budget, Case } from '@/core/model';

/** An adjustment with the size that it has in a case. */
export type Assumption = { readonly adjustment: Adjustment; readonly size: number };

/** What a case assumes, in the order of the list. */
export type Assumed = readonly Assumption[];

/** The adjustments of a case that are on: those with a size there that are not switched off everywhere. */
export const assumedIn = (
  { adjustments }: Pick<Book, 'adjustments'>,
  { sizes }: Pick<Case, 'sizes'>,
): Assumed =>
  adjustments.flatMap((adjustment) => {
    const cell = Object.hasOwn(sizes, adjustment.id) ? sizes[adjustment.id] : undefined;
    return cell === undefined || adjustment.off ? [] : [{ adjustment, size: cell.size }];
  });

/** An assumption about one kind of thing. */
export type AssumptionOf<K extends AdjustsOn> = Assumption & {
  readonly adjustment: { readonly what: AdjustsOf<K> };
};

export const isOn = <K extends AdjustsOn>(a: Assumption, ...on: readonly K[]): a is AssumptionOf<K> =>
  (on as readonly string[]).includes(a.adjustment.what.on);

/** Some of what is assumed, the same list while none of it changes. */
export function steadyPart(belongs: (a: Assumption) => boolean): (assumed: Assumed) => Assumed {
  let last: Assumed = [];
  return (assumed) => {
    const next = assumed.filter(belongs);
    const same =
      next.length === last.length &&
      next.every((a, i) => a.adjustment === last[i]!.adjustment && a.size === last[i]!.size);
    return same ? last : (last = next);
  };
}

/** What still counts over a budget: what was taken into it counts no second time. */
export function countedIn(assumed: Assumed, { applied }: Pick<Budget, 'applied'>): Assumed {
  if (applied.length === 0) return assumed;
  const taken = new Set(applied.map((a) => a.adjustment.id));
  return assumed.some((a) => taken.has(a.adjustment.id))
    ? assumed.filter((a) => !taken.has(a.adjustment.id))
    : assumed;
}
