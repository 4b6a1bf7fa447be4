import type { Metadata } from 'next';
import { BudgetScreen } from '@/features/budget/BudgetScreen';

export const metadata: Metadata = { title: 'Budget · Tellan' };

export default function Page() {
  return <BudgetScreen />;
}
