import type { Metadata } from 'next';
import { StatementsScreen } from '@/features/statements/StatementsScreen';

export const metadata: Metadata = { title: 'Statements · Tellan' };

export default function Page() {
  return <StatementsScreen />;
}
