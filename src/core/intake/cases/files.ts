/** Small files with one trap each, and what must come out of them. Amounts in minor units, natural signs as the file has them. */
export type FileCase = {
  readonly name: string;
  readonly text: string;
  readonly currency?: string;
  readonly shape: 'months' | 'entries';
  /** Account name → [YYYY-MM, amount] of what is read, in the file's own sign (entries: debits positive). */
  readonly amounts: Readonly<Record<string, readonly (readonly [string, number])[]>>;
  readonly leftOut?: Readonly<Record<string, number>>;
  readonly issues?: readonly (readonly [code: string, row: number, column: number, value: string])[];
  readonly ties: boolean;
  readonly doubts?: readonly string[];
};

const t = (...lines: string[]): string => lines.join('\n') + '\n';

export const FILE_CASES: readonly FileCase[] = [
  {
    name: 'months across, code and name apart, a total column',
    shape: 'months',
    text: t('Code,Account,Jan 2025,Feb 2025,Total', '4000,Sales,100.00,200.00,300.00', '6000,Rent,50,50,100'),
    amounts: {
      Sales: [
        ['2025-01', 10000],
        ['2025-02', 20000],
      ],
      Rent: [
        ['2025-01', 5000],
        ['2025-02', 5000],
      ],
    },
    leftOut: { header: 1 },
    ties: true,
  },
  {
    name: 'months across with titles, sections, subtotals, net profit, blank lines',
    shape: 'months',
    text: t(
      'The Shop',
      'Profit and loss',
      '',
      ',2025-01,2025-02',
      'Income,,',
      'Sales,100,200',
      'Repairs,10,',
      'Total Income,110,200',
      'Expenses,,',
      'Rent,40,40',
      'Heat,5,6',
      'Total Expenses,45,46',
      'Net Income,65,154',
    ),
    amounts: {
      Sales: [
        ['2025-01', 10000],
        ['2025-02', 20000],
      ],
      Repairs: [['2025-01', 1000]],
      Rent: [
        ['2025-01', 4000],
        ['2025-02', 4000],
      ],
      Heat: [
        ['2025-01', 500],
        ['2025-02', 600],
      ],
    },
    leftOut: { title: 3, header: 1, heading: 2, total: 3 },
    ties: true,
  },
  {
    name: 'a subtotal that does not add up is shown, not hidden',
    shape: 'months',
    text: t('Account,Jan 2025,Feb 2025', 'Sales,100,200', 'Fees,10,20', 'Total income,110,230'),
    amounts: {
      Sales: [
        ['2025-01', 10000],
        ['2025-02', 20000],
      ],
      Fees: [
        ['2025-01', 1000],
        ['2025-02', 2000],
      ],
    },
    leftOut: { header: 1, total: 1 },
    ties: false,
  },
  {
    name: 'semicolons and decimal commas, codes before names in one cell',
    shape: 'months',
    currency: 'EUR',
    text: t('Konto;01/2025;02/2025', '4000 Erlöse;1.234,56;-2,00', '6000 Miete;900;900'),
    amounts: {
      Erlöse: [
        ['2025-01', 123456],
        ['2025-02', -200],
      ],
      Miete: [
        ['2025-01', 90000],
        ['2025-02', 90000],
      ],
    },
    ties: true,
  },
  {
    name: 'costs written as negatives',
    shape: 'months',
    text: t(
      'Account,Jan-25,Feb-25',
      'Sales,100,100',
      'Rent expense,(40),(40)',
      'Heat expense,(5),(5)',
      'Net profit,55,55',
    ),
    amounts: {
      Sales: [
        ['2025-01', 10000],
        ['2025-02', 10000],
      ],
      'Rent expense': [
        ['2025-01', -4000],
        ['2025-02', -4000],
      ],
      'Heat expense': [
        ['2025-01', -500],
        ['2025-02', -500],
      ],
    },
    ties: true,
  },
  {
    name: 'blank is not zero, a dash is',
    shape: 'months',
    text: t('Account,Jan 2025,Feb 2025,Mar 2025', 'Sales,,-,5'),
    amounts: {
      Sales: [
        ['2025-02', 0],
        ['2025-03', 500],
      ],
    },
    ties: true,
  },
  {
    name: 'an unreadable amount: the row is left out and named',
    shape: 'months',
    text: t('Account,Jan 2025,Feb 2025', 'Sales,100,2OO', 'Rent,1,2'),
    amounts: {
      Rent: [
        ['2025-01', 100],
        ['2025-02', 200],
      ],
    },
    leftOut: { header: 1, unreadableAmount: 1 },
    issues: [['unreadableAmount', 2, 3, '2OO']],
    ties: false,
  },
  {
    name: 'yen with decimals is no amount in yen',
    shape: 'months',
    currency: 'JPY',
    text: t('Account,Jan 2025,Feb 2025', 'Sales,"1,200",100.5', 'Rent,"1,000","1,000"'),
    amounts: {
      Rent: [
        ['2025-01', 1000],
        ['2025-02', 1000],
      ],
    },
    issues: [['tooManyDecimals', 2, 3, '100.5']],
    ties: false,
  },
  {
    name: 'entries with debit and credit',
    shape: 'entries',
    text: t(
      'Date,Journal no,Account code,Account name,Debit,Credit,Memo',
      '2025-01-05,J1,1000,Bank,100.00,,Sale',
      '2025-01-05,J1,4000,Sales,,100.00,Sale',
    ),
    amounts: { Bank: [['2025-01', 10000]], Sales: [['2025-01', -10000]] },
    leftOut: { header: 1 },
    ties: true,
  },
  {
    name: 'entries with one signed amount, a memo with delimiter, quotes and a line break',
    shape: 'entries',
    text: t(
      'Date,Account,Amount,Description',
      '2025-01-31,1000 Bank,250.00,"say ""hi"", twice\nand again"',
      '2025-01-31,4000 Sales,-250.00,x',
    ),
    amounts: { Bank: [['2025-01', 25000]], Sales: [['2025-01', -25000]] },
    ties: true,
  },
  {
    name: 'day before month, told by a day over 12',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Debit,Credit',
      '05/02/2025,1,Bank,10,',
      '05/02/2025,1,Sales,,10',
      '25/03/2025,2,Bank,10,',
      '25/03/2025,2,Sales,,10',
    ),
    amounts: {
      Bank: [
        ['2025-02', 1000],
        ['2025-03', 1000],
      ],
      Sales: [
        ['2025-02', -1000],
        ['2025-03', -1000],
      ],
    },
    ties: true,
  },
  {
    name: 'every day 12 or less: the locale decides and the person is asked',
    shape: 'entries',
    text: t('Date,Ref,Account,Debit,Credit', '05/02/2025,1,Bank,10,', '05/02/2025,1,Sales,,10'),
    amounts: { Bank: [['2025-05', 1000]], Sales: [['2025-05', -1000]] },
    ties: true,
    doubts: ['dates'],
  },
  {
    name: 'an unbalanced entry is named',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Debit,Credit',
      '2025-01-05,A,Bank,10,',
      '2025-01-05,A,Sales,,10',
      '2025-01-06,B,Bank,10,',
      '2025-01-06,B,Sales,,9',
      '2025-01-07,C,Bank,1,',
      '2025-01-07,C,Sales,,1',
    ),
    amounts: { Bank: [['2025-01', 2100]], Sales: [['2025-01', -2000]] },
    ties: false,
  },
  {
    name: 'one side only: said once, not for every entry',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Amount',
      '2025-01-05,A,Sales,-10',
      '2025-01-06,B,Sales,-20',
      '2025-01-07,C,Rent,5',
    ),
    amounts: { Sales: [['2025-01', -3000]], Rent: [['2025-01', 500]] },
    ties: true,
  },
  {
    name: 'totals, brought-forward balances and headings inside',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Debit,Credit,Memo',
      ',,Bank,,,',
      '2025-01-01,,Bank,500,,Opening balance',
      '2025-01-05,A,Bank,10,,x',
      '2025-01-05,A,Sales,,10,x',
      ',,Total,10,10,',
      '',
    ),
    amounts: { Bank: [['2025-01', 1000]], Sales: [['2025-01', -1000]] },
    leftOut: { header: 1, heading: 1, balanceForward: 1, total: 1 },
    ties: true,
  },
  {
    name: 'an impossible date and an amount without one',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Debit,Credit',
      '2025-02-30,A,Bank,10,',
      ',A,Sales,,10',
      '2025-02-01,B,Bank,1,',
      '2025-02-01,B,Sales,,1',
    ),
    amounts: { Bank: [['2025-02', 100]], Sales: [['2025-02', -100]] },
    issues: [
      ['unknownDate', 2, 1, '2025-02-30'],
      ['missingDate', 3, 1, ''],
    ],
    ties: false,
  },
  {
    name: 'headings that are words of the language’s own objects',
    shape: 'months',
    text: t('Account,Jan 2025,Feb 2025', '__proto__,1,2', 'constructor,3,4', 'toString,5,6'),
    amounts: {
      ['constructor' as string]: [
        ['2025-01', 300],
        ['2025-02', 400],
      ],
      ['toString' as string]: [
        ['2025-01', 500],
        ['2025-02', 600],
      ],
    },
    ties: true,
  },
  {
    name: 'months without a year fall in the fiscal year that is meant',
    shape: 'months',
    text: t('Account,Jan,Feb,Mar', 'Sales,1,2,3'),
    amounts: {
      Sales: [
        ['2025-01', 100],
        ['2025-02', 200],
        ['2025-03', 300],
      ],
    },
    ties: true,
    doubts: ['year'],
  },
  {
    name: 'text months, tabs',
    shape: 'entries',
    text: t('Date\tRef\tAccount\tDebit\tCredit', '3 Mar 2025\tA\tBank\t1\t', '3 Mar 2025\tA\tSales\t\t1'),
    amounts: { Bank: [['2025-03', 100]], Sales: [['2025-03', -100]] },
    ties: true,
  },
];
