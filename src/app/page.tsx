import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Tellan' };

/** Where no stage is named: the frame leads to where the book was left, or to its books. */
export default function Page() {
  return null;
}
