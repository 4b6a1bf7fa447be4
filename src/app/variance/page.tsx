import type { Metadata } from 'next';
import { VarianceScreen } from '@/features/variance/VarianceScreen';

export const metadata: Metadata = { title: 'Variance · Tellan' };

export default function Page() {
  return <VarianceScreen />;
}
