import type { Metadata } from 'next';
import { FrontScreen } from '@/features/front/FrontScreen';

export const metadata: Metadata = { title: 'Tellan' };

export default function Page() {
  return <FrontScreen />;
}
