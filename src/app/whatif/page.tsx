import type { Metadata } from 'next';
import { WhatIfScreen } from '@/features/whatif/WhatIfScreen';

export const metadata: Metadata = { title: 'What-if · Tellan' };

export default function Page() {
  return <WhatIfScreen />;
}
