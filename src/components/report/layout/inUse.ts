import type { Layout } from '@/core/model';

/** A layout that a screen shows, with what changes it; who holds the book provides it. */
export type LayoutInUse = {
  readonly layout: Layout;
  readonly all: readonly Layout[];
  /** Changes it: kept in the book, or, where the book can only be read, for this look. */
  readonly change: (change: Partial<Layout>) => void;
  readonly changeRows: (change: Partial<Layout['rows']>) => void;
  readonly choose: (id: string) => void;
  /** Keeps a copy under this name, and shows it. */
  readonly duplicate: (name: string) => void;
  /** Puts it before another of the book's own; at the end for null. */
  readonly move: (before: string | null) => void;
  /** Takes it away, or gives it back as it ships. */
  readonly remove: () => void;
  readonly save: () => void;
  readonly takeIn: (file: File) => void;
};
