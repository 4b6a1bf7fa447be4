'use client';

import { memo } from 'react';
import dynamic from 'next/dynamic';
import type { PeriodIndex } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import { unitOf } from '@/core/money';
import type { Compared } from '@/core/report';
import type { MoneyFormat } from '@/store/format';
import { nameOfAgainst } from '@/store/layoutWords';
import type { MonthFacts } from '@/store/monthFacts';
import { Bridge } from './Bridge';

const LinePicture = dynamic(() => import('./MonthsPictures').then((m) => m.LinePicture));
const AllLines = dynamic(() => import('./MonthsPictures').then((m) => m.AllLines));
const YearPage = dynamic(() => import('./MonthsPictures').then((m) => m.YearPage));

export type PictureKind = 'none' | 'month' | 'toDate' | 'year' | 'line' | 'lines' | 'page';
export const PICTURES: readonly { readonly value: PictureKind; readonly label: string }[] = [
  { value: 'month', label: 'Way: the month' },
  { value: 'toDate', label: 'Way: year to date' },
  { value: 'year', label: 'Way to the outlook' },
  { value: 'line', label: 'This line by month' },
  { value: 'lines', label: 'Lines side by side' },
  { value: 'page', label: 'The year on a page' },
  { value: 'none', label: 'No picture' },
];

/** The picture above the report, of the kind that was chosen. */
export const Pictured = memo(function Pictured({
  kind,
  facts,
  rowKey,
  label,
  ...of
}: {
  readonly kind: PictureKind;
  readonly ground: Ground;
  readonly compared: Compared;
  readonly month: PeriodIndex;
  readonly money: MoneyFormat;
  readonly facts: MonthFacts;
  readonly rowKey: string | null;
  readonly label: string;
}) {
  const unit = unitOf(of.ground.book.currency);
  switch (kind) {
    case 'none':
      return null;
    case 'month':
    case 'toDate':
    case 'year':
      return (
        <Bridge
          facts={facts}
          against={nameOfAgainst(of.compared, 'first')}
          block={kind}
          money={of.money}
          accounts={of.ground.book.accounts}
          calendar={of.ground.calendar}
          label={label}
        />
      );
    case 'line':
      return <LinePicture {...of} rowKey={rowKey} unit={unit} />;
    case 'lines':
      return <AllLines {...of} facts={facts} unit={unit} />;
    case 'page':
      return <YearPage {...of} unit={unit} />;
  }
});
