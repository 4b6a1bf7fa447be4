'use client';

import { SegmentedControl, Switch } from '@mantine/core';
import type { Settings } from '@/core/model';
import { dispatch, useBookStore } from '@/store/bookStore';

type Scale = 'cents' | 'whole' | 'thousands';
const scaleOf = ({ cents, thousands }: Settings): Scale =>
  thousands ? 'thousands' : cents ? 'cents' : 'whole';
const AS: Record<Scale, Pick<Settings, 'cents' | 'thousands'>> = {
  cents: { cents: true, thousands: undefined },
  whole: { cents: false, thousands: undefined },
  thousands: { cents: false, thousands: true },
};

/** How figures are written on every screen: their scale, and what negatives look like. */
export function Numbers() {
  const settings = useBookStore((s) => s.history?.book.settings ?? null);
  const readOnly = useBookStore((s) => s.readOnly);
  if (!settings) return null;
  const set = (change: Partial<Settings>) => dispatch({ type: 'setSettings', settings: change });
  return (
    <>
      <div className="label" style={{ marginBottom: 6 }}>
        Figures
      </div>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Figures"
        disabled={readOnly}
        value={scaleOf(settings)}
        onChange={(v) => set(AS[v as Scale])}
        data={[
          { value: 'cents', label: 'Cents' },
          { value: 'whole', label: 'Whole' },
          { value: 'thousands', label: 'Thousands' },
        ]}
        mb="xs"
      />
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Negatives"
        disabled={readOnly}
        value={settings.negatives}
        onChange={(v) => set({ negatives: v as Settings['negatives'] })}
        data={[
          { value: 'parentheses', label: '(1,234)' },
          { value: 'minus', label: '−1,234' },
        ]}
        mb="xs"
      />
      <Switch
        size="xs"
        label="Negatives in red, too"
        checked={settings.red === true}
        disabled={readOnly}
        onChange={(e) => set({ red: e.currentTarget.checked ? true : undefined })}
      />
    </>
  );
}
