import type { Metadata } from 'next';
import { CashScreen } from '@/features/cash/CashScreen';

export const metadata: Metadata = { title: 'Cash · Tellan' };

export default function Page() {
  return <CashScreen />;
}
