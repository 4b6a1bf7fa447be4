import type { AccountKind } from '@/core/model';
import type { GuessContext } from '../guessContext';

/** Small files with one trap each, and what must come out of them. Amounts in minor units, natural signs as the file has them. */
export type FileCase = {
  readonly name: string;
  readonly text: string;
  readonly currency?: string;
  readonly shape: 'months' | 'entries' | 'balances';
  readonly context?: Partial<GuessContext>;
  /** Account name → [YYYY-MM, amount] of what is read, in the file's own sign (entries: debits positive). */
  readonly amounts: Readonly<Record<string, readonly (readonly [string, number])[]>>;
  readonly leftOut?: Readonly<Record<string, number>>;
  readonly issues?: readonly (readonly [code: string, row: number, column: number, value: string])[];
  readonly ties: boolean;
  readonly doubts?: readonly string[];
  /** Entries set aside from activity. */
  readonly aside?: { readonly opening?: number; readonly closing?: number };
  readonly segments?: readonly (readonly [string, readonly string[]])[];
  readonly kinds?: Readonly<Record<string, AccountKind>>;
  /** How many totals of the file are held against ours. */
  readonly controls?: number;
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
    name: 'an unreadable amount costs that amount, not its row, and is named',
    shape: 'months',
    text: t('Account,Jan 2025,Feb 2025', 'Sales,100,2OO', 'Rent,1,2', 'Heat,l0,l1'),
    amounts: {
      Sales: [['2025-01', 10000]],
      Rent: [
        ['2025-01', 100],
        ['2025-02', 200],
      ],
    },
    leftOut: { header: 1, unreadableAmount: 1 },
    issues: [
      ['unreadableAmount', 2, 3, '2OO'],
      ['unreadableAmount', 4, 2, 'l0'],
      ['unreadableAmount', 4, 3, 'l1'],
    ],
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
      '2025-01-01,,Share capital,,500,Opening balance',
      '2025-01-05,A,Bank,10,,x',
      '2025-01-05,A,Sales,,10,x',
      ',,Total,10,10,',
      '',
    ),
    amounts: { Bank: [['2025-01', 1000]], Sales: [['2025-01', -1000]] },
    leftOut: { header: 1, heading: 1, total: 1 },
    aside: { opening: 2 },
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
  {
    name: 'fiscal periods by number as heads, in a year that begins in July',
    shape: 'months',
    context: { calendar: { kind: 'months', firstMonth: 7 }, year: 2026 },
    text: t('Account,Period 1,Period 2,Period 7', 'Sales,1,2,9', 'Rent,3,4,'),
    amounts: {
      Sales: [
        ['2025-07', 100],
        ['2025-08', 200],
        ['2026-01', 900],
      ],
      Rent: [
        ['2025-07', 300],
        ['2025-08', 400],
      ],
    },
    ties: true,
    doubts: ['year'],
  },
  {
    name: 'the numbers 1 to 12 as heads',
    shape: 'months',
    text: t('Account,1,2,3,4,5,6,7,8,9,10,11,12', 'Sales,1,2,3,4,5,6,7,8,9,10,11,12'),
    amounts: {
      Sales: Array.from({ length: 12 }, (_, i) => [`2025-${String(i + 1).padStart(2, '0')}`, (i + 1) * 100]),
    },
    ties: true,
    doubts: ['year'],
  },
  {
    name: 'periods of weeks: a month as head goes to the period that holds its middle',
    shape: 'months',
    context: {
      calendar: { kind: 'weeks', pattern: '4-4-5', endMonth: 12, endWeekday: 6, ending: 'last' },
    },
    text: t('Account,FY25 P1,FY25 P2', 'Sales,1,2'),
    // The year ends on the last Saturday of December: FY25 begins on 29 December 2024, its first four weeks end on 25 January.
    amounts: {
      Sales: [
        ['2025-01', 100],
        ['2025-02', 200],
      ],
    },
    ties: true,
  },
  {
    name: 'comparative columns of the year before are left out',
    shape: 'months',
    text: t(
      'Account,Jan 2025,Jan 2024,Feb 2025,Feb 2024,Total 2025',
      'Sales,10,9,20,19,30',
      'Rent,5,4,5,4,10',
    ),
    amounts: {
      Sales: [
        ['2025-01', 1000],
        ['2025-02', 2000],
      ],
      Rent: [
        ['2025-01', 500],
        ['2025-02', 500],
      ],
    },
    ties: true,
    doubts: ['comparative'],
    controls: 2,
  },
  {
    name: 'actuals beside a budget under each month',
    shape: 'months',
    text: t(
      ',Jan 2025,,,Feb 2025,,',
      'Account,Actual,Budget,Variance,Actual,Budget,Variance',
      'Sales,10,11,-1,20,21,-1',
      'Rent,5,5,0,5,5,0',
    ),
    amounts: {
      Sales: [
        ['2025-01', 1000],
        ['2025-02', 2000],
      ],
      Rent: [
        ['2025-01', 500],
        ['2025-02', 500],
      ],
    },
    leftOut: { title: 1, header: 1 },
    ties: true,
  },
  {
    name: 'indented names under headings, a footer, blank lines, an account called a total',
    shape: 'months',
    text: t(
      'Profit and loss by month',
      '',
      ',Jan 2025,Feb 2025,Total',
      'Expenses,,,',
      '  Premises,,,',
      '    6000 Rent,40,40,80',
      '    6010 Total Gas heating,5,6,11',
      '  Total Premises,45,46,91',
      '  People,,,',
      '    6100 Wages,50,50,100',
      '  Total People,50,50,100',
      'Total Expenses,95,96,191',
      '',
      'Accrual basis,,,',
      'Printed on 6 Nov 2026,,,',
    ),
    amounts: {
      Rent: [
        ['2025-01', 4000],
        ['2025-02', 4000],
      ],
      'Total Gas heating': [
        ['2025-01', 500],
        ['2025-02', 600],
      ],
      Wages: [
        ['2025-01', 5000],
        ['2025-02', 5000],
      ],
    },
    leftOut: { title: 2, header: 1, heading: 3, footer: 2, total: 3, blank: 1 },
    controls: 6,
    ties: true,
    kinds: { Rent: 'expense', 'Total Gas heating': 'expense', Wages: 'expense' },
  },
  {
    name: 'a subtotal without the word, known by arithmetic',
    shape: 'months',
    text: t(
      'Code,Account,Jan 2025,Feb 2025',
      '4000,Sales,100,200',
      '4100,Fees,10,20',
      ',Trading income,110,220',
      '6000,Rent,50,50',
    ),
    amounts: {
      Sales: [
        ['2025-01', 10000],
        ['2025-02', 20000],
      ],
    },
    leftOut: { header: 1, total: 1 },
    controls: 1,
    ties: true,
  },
  ...(
    [
      ['Jan-26,Feb-26', '2026-01', '2026-02'],
      ['2026-01,2026-02', '2026-01', '2026-02'],
      ['01/2026,02/2026', '2026-01', '2026-02'],
      ['31 Jan 26,28 Feb 26', '2026-01', '2026-02'],
      ['2026-01-31,2026-02-28', '2026-01', '2026-02'],
      ['January 2026,February 2026', '2026-01', '2026-02'],
      ['Month ended 31 Jan 2026,Month ended 28 Feb 2026', '2026-01', '2026-02'],
      ["Jan '26,Feb '26", '2026-01', '2026-02'],
      ['2026 Jan,2026 Feb', '2026-01', '2026-02'],
      ['Feb 2026,Jan 2026', '2026-02', '2026-01'],
      ['"Jan 1 - 31, 2026","Feb 1 - 28, 2026"', '2026-01', '2026-02'],
      ['01/01/2026 - 31/01/2026,01/02/2026 - 28/02/2026', '2026-01', '2026-02'],
      ['1 Jan – 31 Jan 2026,1 Feb – 28 Feb 2026', '2026-01', '2026-02'],
    ] as const
  ).map(([heads, a, b]): FileCase => ({
    name: `months as ${heads}`,
    shape: 'months',
    text: t(`Account,${heads}`, 'Sales,1,2'),
    amounts: {
      Sales: [
        [a, 100],
        [b, 200],
      ],
    },
    ties: true,
  })),
  ...(
    [
      ['1 234,50', ',', 123450],
      ['1\u2009234,50', ',', 123450],
      ["1'234.50", '.', 123450],
      ['(1,234.50)', '.', -123450],
      ['1,234.50-', '.', -123450],
      ['1,234.50 CR', '.', -123450],
      ['1,234.50DR', '.', 123450],
      ['$1,234.50', '.', 123450],
      ['-$1,234.50', '.', -123450],
      ['€ 1.234,50', ',', 123450],
      ['USD 1,234.50', '.', 123450],
      ['–', '.', 0],
    ] as const
  ).map(([amount, decimal, value]): FileCase => ({
    name: `an amount written ${amount}`,
    shape: 'months',
    context: { numbers: { decimal, group: decimal === '.' ? ',' : '.' } },
    text: t('Account\tJan 2025\tFeb 2025', `Sales\t${amount}\t${amount}`),
    amounts: {
      Sales: [
        ['2025-01', value],
        ['2025-02', value],
      ],
    },
    ties: true,
  })),
  {
    name: 'amounts with a debit or credit mark in a column of its own, segments in two more',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Amount,D/C,Department,Fund,Customer,Vendor',
      '2025-01-05,1,Bank,100.00,D,North,General,Ann,',
      '2025-01-05,1,Sales,100.00,C,North,,Ann,',
      '2025-01-06,2,Rent,30.00,D,South,General,,Bob',
      '2025-01-06,2,Bank,30.00,C,,General,,Bob',
    ),
    amounts: {
      Bank: [['2025-01', 7000]],
      Sales: [['2025-01', -10000]],
      Rent: [['2025-01', 3000]],
    },
    segments: [
      ['Department', ['North', 'South']],
      ['Fund', ['General']],
      ['Vendor', ['Bob']],
    ],
    ties: true,
  },
  {
    name: '"Name" is the account’s, "Counterparty" the other party’s: each code has one name and many parties',
    shape: 'entries',
    text: t(
      'Date,No,Code,Name,Counterparty,Debit,Credit,Department,Department,Cost center 2',
      '2025-01-05,1,1000,Bank,Ann,100.00,,North,Boats,Red',
      '2025-01-05,1,4000,Sales,Ann,,100.00,North,Cars,Red',
      '2025-01-06,2,1000,Bank,Bob,50.00,,South,Boats,',
      '2025-01-06,2,4000,Sales,Bob,,50.00,South,Boats,',
      '2025-02-06,3,1000,Bank,Cyd,20.00,,South,Boats,',
      '2025-02-06,3,4000,Sales,Cyd,,20.00,South,Boats,',
    ),
    amounts: {
      Bank: [
        ['2025-01', 15000],
        ['2025-02', 2000],
      ],
      Sales: [
        ['2025-01', -15000],
        ['2025-02', -2000],
      ],
    },
    segments: [
      ['Department', ['North', 'South']],
      ['Department (2)', ['Boats', 'Cars']],
      ['Cost center 2', ['Red']],
    ],
    ties: true,
  },
  {
    name: '"Name" beside a code with many names for each is the other party’s',
    shape: 'entries',
    text: t(
      'Date,No,Account,Name,Debit,Credit',
      '2025-01-05,1,1000,Ann,100.00,',
      '2025-01-05,1,4000,Ann,,100.00',
      '2025-01-06,2,1000,Bob,50.00,',
      '2025-01-06,2,4000,Bob,,50.00',
      '2025-01-07,3,1000,Cyd,50.00,',
      '2025-01-07,3,4000,Cyd,,50.00',
    ),
    amounts: { '1000': [['2025-01', 20000]], '4000': [['2025-01', -20000]] },
    ties: true,
  },
  {
    name: '"Name" and "Party" beside codes that stand once: taken by their heads, and unsure',
    shape: 'entries',
    text: t(
      'Date,No,Code,Name,Party,Debit,Credit',
      '2025-01-05,1,1000,Bank,Ann,100.00,',
      '2025-01-05,1,4000,Sales,Ann,,100.00',
    ),
    amounts: { Bank: [['2025-01', 10000]], Sales: [['2025-01', -10000]] },
    doubts: ['columns'],
    ties: true,
  },
  {
    name: 'a mark that is neither debit nor credit',
    shape: 'entries',
    text: t(
      'Date,Ref,Account,Amount,D/C',
      '2025-01-05,1,Bank,100.00,D',
      '2025-01-05,1,Sales,100.00,C',
      '2025-01-06,2,Rent,30.00,X',
    ),
    amounts: { Bank: [['2025-01', 10000]] },
    leftOut: { header: 1, unknownMark: 1 },
    issues: [['unknownMark', 4, 5, 'X']],
    ties: false,
  },
  {
    name: 'accounts as headings above their entries, balances brought forward, totals of each',
    shape: 'entries',
    text: t(
      'General ledger',
      'Date,Number,Memo,Debit,Credit,Balance',
      '1000 Bank,,,,,',
      ',,Beginning balance,,,500.00',
      '2025-01-05,1,Sale,100.00,,600.00',
      '2025-01-09,2,Rent,,40.00,560.00',
      'Total for 1000 Bank,,,100.00,40.00,',
      '',
      '4000 Sales,,,,,',
      '2025-01-05,1,Sale,,100.00,(100.00)',
      'Total for 4000 Sales,,,,100.00,',
      '6000 Rent,,,,,',
      '2025-01-09,2,Rent,40.00,,40.00',
      'Total for 6000 Rent,,,40.00,,',
      '3000 Share capital,,,,,',
      ',,Beginning balance,,,(500.00)',
    ),
    amounts: {
      Bank: [['2025-01', 6000]],
      Sales: [['2025-01', -10000]],
      Rent: [['2025-01', 4000]],
    },
    aside: { opening: 2 },
    leftOut: { title: 1, header: 1, heading: 4, total: 3, blank: 1 },
    controls: 3,
    ties: true,
  },
  {
    name: 'one column of amounts on each account’s natural side, told by arithmetic',
    shape: 'entries',
    text: t(
      'Date,Num,Memo,Amount',
      '1000 Checking,,,',
      '2025-01-05,1,Sale,100.00',
      '2025-01-09,2,Rent,-40.00',
      '4000 Sales,,,',
      '2025-01-05,1,Sale,100.00',
      '6000 Rent,,,',
      '2025-01-09,2,Rent,40.00',
    ),
    amounts: {
      Checking: [['2025-01', 6000]],
      Sales: [['2025-01', 10000]],
      Rent: [['2025-01', 4000]],
    },
    ties: true,
    doubts: ['sign'],
  },
  {
    name: 'closing entries known by their words',
    shape: 'entries',
    text: t(
      'Date,Ref,Account code,Account,Debit,Credit,Memo',
      '2025-06-05,1,1000,Bank,100,,x',
      '2025-06-05,1,4000,Sales,,100,x',
      '2025-12-31,CL,4000,Sales,100,,Year-end closing entry',
      '2025-12-31,CL,3000,Retained earnings,,100,Year-end closing entry',
    ),
    amounts: { Bank: [['2025-06', 10000]], Sales: [['2025-06', -10000]] },
    aside: { closing: 2 },
    ties: true,
  },
  {
    name: 'closing entries known by arithmetic alone',
    shape: 'entries',
    text: t(
      'Date,Ref,Account code,Account,Debit,Credit,Memo',
      '2025-06-05,1,1000,Bank,100,,x',
      '2025-06-05,1,4000,Sales,,100,x',
      '2025-12-31,2,6000,Rent,30,,December rent',
      '2025-12-31,2,1000,Bank,,30,December rent',
      '2025-12-31,3,4000,Sales,100,,y',
      '2025-12-31,3,6000,Rent,,30,y',
      '2025-12-31,3,3000,Retained earnings,,70,y',
    ),
    amounts: {
      Bank: [
        ['2025-06', 10000],
        ['2025-12', -3000],
      ],
      Sales: [['2025-06', -10000]],
      Rent: [['2025-12', 3000]],
    },
    aside: { closing: 3 },
    ties: true,
  },
  {
    name: 'a reversal on the year’s last day is no closing entry',
    shape: 'entries',
    text: t(
      'Date,Ref,Account code,Account,Debit,Credit,Memo',
      '2025-06-05,1,1000,Bank,100,,x',
      '2025-06-05,1,4000,Sales,,100,x',
      '2025-06-06,2,6000,Rent,30,,x',
      '2025-06-06,2,1000,Bank,,30,x',
      '2025-12-31,3,6000,Rent,,30,rent of June paid back',
      '2025-12-31,3,1000,Bank,30,,rent of June paid back',
    ),
    amounts: {
      Bank: [
        ['2025-06', 7000],
        ['2025-12', 3000],
      ],
      Rent: [
        ['2025-06', 3000],
        ['2025-12', -3000],
      ],
    },
    ties: true,
  },
  {
    name: 'one trial balance, its day in the title: openings and the year so far',
    shape: 'balances',
    text: t(
      'Trial balance as of 31 March 2025',
      'Code,Account,Debit,Credit',
      '1000,Bank,600.00,',
      '3000,Equity,,500.00',
      '4000,Sales,,130.00',
      '6000,Rent,30.00,',
      ',Total,630.00,630.00',
    ),
    amounts: { Sales: [['2025-03', -13000]], Rent: [['2025-03', 3000]] },
    aside: { opening: 2 },
    leftOut: { title: 1, header: 1, total: 1 },
    controls: 2,
    ties: true,
    doubts: ['cumulative'],
  },
  {
    name: 'trial balances with months across, cumulative by arithmetic',
    shape: 'balances',
    text: t(
      'Trial balance',
      'Account,Jan 2025,Feb 2025,Mar 2025',
      'Bank,110,150,210',
      'Equity,(100),(100),(100)',
      'Sales,(30),(80),(150)',
      'Rent,10,20,30',
      'Wages expense,10,10,10',
    ),
    amounts: {
      Bank: [
        ['2025-02', 4000],
        ['2025-03', 6000],
      ],
      Sales: [
        ['2025-01', -3000],
        ['2025-02', -5000],
        ['2025-03', -7000],
      ],
      Rent: [
        ['2025-01', 1000],
        ['2025-02', 1000],
        ['2025-03', 1000],
      ],
    },
    aside: { opening: 2 },
    ties: true,
  },
  {
    name: 'trial balances of single months: no account grows, so they are activity',
    shape: 'balances',
    text: t(
      'Account,Jan 2025,Feb 2025,Mar 2025',
      'Bank,20,-25,40',
      'Sales,-40,-10,-60',
      'Rent,10,30,10',
      'Wages expense,10,5,10',
    ),
    amounts: {
      Bank: [
        ['2025-01', 2000],
        ['2025-02', -2500],
        ['2025-03', 4000],
      ],
      Sales: [
        ['2025-01', -4000],
        ['2025-02', -1000],
        ['2025-03', -6000],
      ],
    },
    ties: true,
  },
  {
    name: 'trial balances with debit and credit under each month, over a year’s end',
    shape: 'balances',
    text: t(
      ',Nov 2025,,Dec 2025,,Jan 2026,',
      'Account,Debit,Credit,Debit,Credit,Debit,Credit',
      'Bank,50,,70,,80,',
      'Equity,,20,,20,,50',
      'Sales,,40,,70,,35',
      'Rent,10,,20,,5,',
      'Total,60,60,90,90,85,85',
    ),
    amounts: {
      Bank: [
        ['2025-12', 2000],
        ['2026-01', 1000],
      ],
      Sales: [
        ['2025-11', -4000],
        ['2025-12', -3000],
        ['2026-01', -3500],
      ],
      Rent: [
        ['2025-11', 1000],
        ['2025-12', 1000],
        ['2026-01', 500],
      ],
      // Last year's 50 went into equity, which is no activity of January; 20 of it was drawn.
      Equity: [
        ['2025-12', 0],
        ['2026-01', 2000],
      ],
    },
    aside: { opening: 2, closing: 3 },
    controls: 6,
    ties: true,
  },
  {
    name: 'a trial balance whose debits and credits differ',
    shape: 'balances',
    text: t('Account,Debit,Credit', 'Bank,100,', 'Sales,,90', 'Trial total,100,90').replace(
      'Account,',
      'Account (31/12/2025),',
    ),
    context: { fileName: 'TB 2025-12-31.csv' },
    amounts: { Sales: [['2025-12', -9000]] },
    aside: { opening: 1 },
    ties: false,
  },
  {
    name: 'only the first row of each entry has its date and number',
    shape: 'entries',
    text: t(
      'Date,Num,Memo,Account,Debit,Credit',
      '2025-01-05,1,Sale,1000 Bank,100.00,',
      ',,Sale,4000 Sales,,90.00',
      ',,Sale,2200 Sales tax,,10.00',
      '2025-02-09,2,Rent,6000 Rent,40.00,',
      ',,Rent,1000 Bank,,40.00',
      'Total,,,,140.00,140.00',
    ),
    amounts: {
      Bank: [
        ['2025-01', 10000],
        ['2025-02', -4000],
      ],
      Sales: [['2025-01', -9000]],
      'Sales tax': [['2025-01', -1000]],
      Rent: [['2025-02', 4000]],
    },
    leftOut: { header: 1, total: 1 },
    ties: true,
  },
  {
    name: 'a trial balance with movements between opening and closing: the movements are the month’s activity',
    shape: 'balances',
    context: { fileName: 'Trial balance March 2025.csv' },
    text: t(
      'Code,Account,Opening,Debit,Credit,Closing balance',
      '1000,Bank,500,100,40,560',
      '3000,Equity,-500,,,-500',
      '4000,Sales,,,100,-100',
      '6000,Rent,,40,,40',
      ',Total,0,140,140,0',
    ),
    amounts: {
      Bank: [['2025-03', 6000]],
      Sales: [['2025-03', -10000]],
      Rent: [['2025-03', 4000]],
    },
    leftOut: { header: 1, total: 1, noAmount: 1 },
    controls: 2,
    ties: true,
  },
  {
    name: 'accounts with sub-accounts: a parent without figures, one with its own, results without a column',
    shape: 'months',
    text: t(
      ',,Jan 25,Feb 25,TOTAL',
      'Ordinary income and expense,,,,',
      'Income,,,,',
      ',4000 · Course fees,1200.00,1300.00,2500.00',
      ',Total Income,1200.00,1300.00,2500.00',
      'Gross Profit,,1200.00,1300.00,2500.00',
      'Expense,,,,',
      ',6000 · Premises,,,',
      ',6010 · Rent,800.00,800.00,1600.00',
      ',6000 · Premises - Other,10.00,0.00,10.00',
      ',Total 6000 · Premises,810.00,800.00,1610.00',
      ',6500 · Wages,300.00,300.00,600.00',
      ',6510 · Yard wages,20.00,20.00,40.00',
      ',Total 6500 · Wages,320.00,320.00,640.00',
      ',Total Expense,1130.00,1120.00,2250.00',
      'Net Income,,70.00,180.00,250.00',
    ),
    amounts: {
      Rent: [
        ['2025-01', 80000],
        ['2025-02', 80000],
      ],
      Wages: [
        ['2025-01', 30000],
        ['2025-02', 30000],
      ],
    },
    kinds: {
      'Course fees': 'income',
      Rent: 'expense',
      'Premises - Other': 'expense',
      Wages: 'expense',
      'Yard wages': 'expense',
    },
    leftOut: { header: 1, heading: 4, total: 6 },
    ties: true,
  },
  {
    name: 'the total before the months, the latest month first',
    shape: 'months',
    text: t('Account,Total,Dec 2025,Nov 2025,Oct 2025', 'Sales,6,3,2,1', 'Rent expense,3,1,1,1'),
    amounts: {
      Sales: [
        ['2025-12', 300],
        ['2025-11', 200],
        ['2025-10', 100],
      ],
    },
    controls: 2,
    ties: true,
  },
  {
    name: 'the balance beside the account’s name is its opening',
    shape: 'entries',
    text: t(
      'Type;Date;Num;Memo;Debit;Credit;Balance',
      '1000 Bank;;;;;;500,00',
      'Invoice;01/13/2025;12;x;100,00;;600,00',
      'Total 1000 Bank;;;;100,00;;600,00',
      '4000 Sales;;;;;;',
      'Invoice;01/13/2025;12;x;;100,00;-100,00',
      'Total 4000 Sales;;;;;100,00;-100,00',
      '3000 Share capital;;;;;;-500,00',
      'TOTAL;;;;100,00;100,00;',
    ),
    amounts: { Bank: [['2025-01', 10000]], Sales: [['2025-01', -10000]] },
    aside: { opening: 2 },
    controls: 2,
    ties: true,
  },
];
