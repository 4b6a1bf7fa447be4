'use client';

import { useMemo } from 'react';
import { planNames, type Ground } from '@/core/ground';
import type { Budget } from '@/core/model';
import { useSession } from './session';

/** The plan that a screen follows ahead: the one in force, unless another is looked at. */
export type Plan = {
  /** The budget that is looked at in place of what is in force; null: what is in force. */
  readonly looked: Budget | null;
  /** What it is called: "FY27 budget", or "FY27 budget, not in force". Null where nothing is planned. */
  readonly name: string | null;
};

/** What a plan is called on every screen that follows it. */
export function planCalled(ground: Ground, looked: Budget | null): string | null {
  const names = planNames(ground);
  const inForce = names.join(', then ');
  if (looked === null) return names.length > 0 ? inForce : null;
  if (names.length === 1 && names[0] === looked.name) return looked.name;
  return `${looked.name}, not in force`;
}

export function usePlan(ground: Ground): Plan {
  const id = useSession((s) => s.planId);
  const looked = ground.book.budgets.find((b) => b.id === id) ?? null;
  const name = useMemo(() => planCalled(ground, looked), [ground, looked]);
  return { looked, name };
}
