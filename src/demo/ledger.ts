import { dayNumberOf, daysInMonth, fromDayNumber, type Day } from '@/core/calendar';
import { minor, splitByWeights } from '@/core/money';
import { DEMO_ACCOUNTS } from './accounts';
import { seeded } from './random';

/** One row of the demo ledger's files. Amounts in cents; one of debit and credit is zero. */
export type DemoRow = {
  readonly day: Day;
  readonly journal: string;
  readonly code: string;
  readonly debit: number;
  readonly credit: number;
  readonly party: string;
  readonly memo: string;
  readonly site: string;
  readonly activity: string;
};

/** Shares of a year by month, July first: the seasons of a boatyard. */
const SEASON = {
  berths: [12, 12, 11, 8, 6, 6, 6, 6, 7, 8, 9, 9],
  storage: [0, 1, 6, 24, 34, 16, 7, 6, 5, 1, 0, 0],
  visitors: [26, 28, 14, 3, 0, 0, 0, 0, 1, 5, 9, 14],
  refits: [5, 5, 7, 8, 8, 6, 8, 9, 12, 13, 11, 8],
  chandlery: [14, 13, 9, 5, 4, 5, 3, 4, 7, 11, 13, 12],
  courses: [30, 32, 0, 0, 0, 0, 0, 0, 0, 0, 10, 28],
  heat: [4, 4, 5, 7, 10, 13, 15, 14, 11, 8, 5, 4],
  flat: [1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1],
} as const;
type Season = keyof typeof SEASON;

/** A year's income by account: annual amount, season, number of sales in an average month, buyers, site and activity. */
const INCOME: readonly (readonly [
  code: string,
  annual: number,
  season: Season,
  sales: number,
  memo: string,
  site: string,
  activity: string,
])[] = [
  ['4010', 118_000, 'berths', 16, 'Berth fee', 'North Yard', 'Berths'],
  ['4015', 74_500, 'berths', 11, 'Berth fee', 'South Quay', 'Berths'],
  ['4020', 58_400, 'storage', 8, 'Winter storage', 'North Yard', 'Berths'],
  ['4030', 16_200, 'visitors', 5, 'Visitor mooring', 'South Quay', 'Berths'],
  ['4050', 21_600, 'refits', 4, 'Crane and slip', 'North Yard', 'Workshop'],
  ['4100', 338_000, 'refits', 11, 'Refit job', 'North Yard', 'Workshop'],
  ['4120', 46_800, 'refits', 5, 'Rigging job', 'South Quay', 'Workshop'],
  ['4300', 79_500, 'courses', 9, 'Sailing course', 'South Quay', 'Sailing school'],
  ['4310', 14_800, 'courses', 4, 'Dinghy hire', 'South Quay', 'Sailing school'],
];

/** A year's costs by account: annual amount, season, bills in a month, supplier and memo. */
const COSTS: readonly (readonly [
  code: string,
  annual: number,
  season: Season,
  bills: number,
  party: string,
  memo: string,
])[] = [
  ['5010', 101_400, 'refits', 7, 'Harrow Marine Supply', 'Materials for jobs'],
  ['5030', 38_200, 'refits', 2, 'Tiller & Daughters', 'Subcontracted trade'],
  ['5040', 5_200, 'courses', 2, 'Brightwater Print', 'Course packs'],
  ['6120', 49_800, 'flat', 1, 'Creekside Estates', 'Slipway lease'],
  ['6200', 20_900, 'heat', 2, 'Estuary Power', 'Power and water'],
  ['6210', 8_700, 'visitors', 2, 'Quayside Fuels', 'Launch fuel'],
  ['6220', 7_400, 'refits', 1, 'Cleanhull Waste', 'Hull washings'],
  ['6230', 6_300, 'flat', 1, 'Marsh Cleaning', 'Cleaning'],
  ['6240', 5_160, 'flat', 1, 'Nightheron Security', 'Gate and cameras'],
  ['6300', 3_480, 'flat', 1, 'Saltline Telecom', 'Telephone and internet'],
  ['6310', 4_320, 'flat', 1, 'Plover Software', 'Booking software'],
  ['6320', 2_700, 'flat', 2, 'Penny & Quire', 'Office supplies'],
  ['6330', 1_560, 'flat', 1, 'Heron Carriers', 'Freight'],
  ['6340', 5_900, 'chandlery', 1, 'First Estuary Bank', 'Card charges'],
  ['6400', 11_500, 'heat', 1, 'Wharf Builders', 'Repairs to sheds'],
  ['6410', 14_300, 'refits', 2, 'Ironside Engineers', 'Hoist and tractor service'],
  ['6420', 6_100, 'refits', 1, 'Harrow Marine Supply', 'Small tools'],
  ['6430', 4_400, 'courses', 1, 'Lifeline Safety', 'Lifejackets and flares'],
  ['6600', 8_900, 'berths', 1, 'Creek & Coast Weekly', 'Advertising'],
  ['6620', 1_320, 'flat', 1, 'Boat Builders League', 'Subscription'],
  ['6630', 2_600, 'flat', 1, 'Staff expenses', 'Travel'],
];

/** Lumps: what falls in one month of the year (July is 0). */
const LUMPS: readonly (readonly [
  code: string,
  month: number,
  amount: number,
  party: string,
  memo: string,
])[] = [
  ['6110', 6, 31_200, 'Tidemark Mutual', 'Annual insurance'],
  ['6130', 9, 6_850, 'Harbor Authority', 'Harbor license'],
  ['6140', 4, 9_420, 'County Treasurer', 'Property taxes, first half'],
  ['6140', 10, 9_420, 'County Treasurer', 'Property taxes, second half'],
  ['6350', 3, 7_800, 'Lark & Finch Accountants', 'Annual review'],
  ['6360', 7, 2_450, 'Sedge Law', 'Lease advice'],
  ['6610', 10, 5_300, 'Pellow Creek Open Day', 'Open day'],
  ['6640', 4, 1_150, 'Town Hall', 'Annual meeting of members'],
  ['6050', 8, 3_900, 'Coastal Trades School', 'Hoist tickets'],
];

const BUYERS = [
  'Anders Holt',
  'B. Okafor',
  'Carrow family',
  'D. Lindqvist',
  'Egret Charters',
  'F. Amato',
  'Gannet Fishing',
  'Hollis & Page',
  'I. Nakano',
  'Jessamy Boats',
  'K. Pereira',
  'Lugger Club',
  'M. Rowntree',
  'Nightjar Rowing',
  'O. Svensson',
  'Petrel Sailing',
  'Quill Estate',
  'R. Banerjee',
  'Sandpiper Scouts',
  'T. Whitlock',
  'Upriver Ferry',
  'V. Castellan',
  'Wren Cottage',
  'Y. Haddad',
];

/** First payday; every second Friday after it is one, so two months of each year have three. */
const FIRST_PAYDAY = dayNumberOf(2024, 7, 5);

type Post = (code: string, cents: number) => void;

/** Receivables and payables that the ledger opens with. */
export const STOOD_OPEN = { receivable: 6_130_000, payable: 2_175_000 } as const;

/** Days on which customers pay in a month, and days after which each pays its invoices: some at once, some late. */
const RECEIPTS = 14;
const HABITS = [14, 28, 35, 21, 44] as const;
const BILL_RUNS = 6;
const BILL_DAYS = 21;

/** The refit invoice of October 2026 that is paid late, in cents. */
export const LATE_REFIT = 980_000;

type Due = { readonly party: string; readonly cents: number; readonly due: number };

/** Pays all of a party's that is due by a day, in one entry; what is paid is taken off the list. */
function pay(
  list: Due[],
  party: string,
  day: number,
  memo: string,
  to: string,
  from: string,
  entry: (
    day: number,
    party: string,
    memo: string,
    site: string,
    activity: string,
    lines: (post: Post) => void,
  ) => void,
): void {
  const due = list.filter((d) => d.party === party && d.due <= day);
  const cents = due.reduce((t, d) => t + d.cents, 0);
  if (cents <= 0) return;
  for (const d of due) list.splice(list.indexOf(d), 1);
  entry(day, party, memo, 'North Yard', 'Berths', (post) => {
    post(to, cents);
    post(from, -cents);
  });
}

/**
 * All rows of the demo ledger from July 2024, in balance, day by day: to October 2026, or over more months, whose
 * earlier rows are the same.
 */
export function demoLedger(months = 28): DemoRow[] {
  const random = seeded(20260701);
  const rows: DemoRow[] = [];
  let number = 1000;
  let loan = 6_000_000;
  const taxDue = new Map<number, number>();
  const invoices: Due[] = [];
  const bills: Due[] = [];
  const vary = (spread: number) => 1 + (random() * 2 - 1) * spread;
  const buyer = () => BUYERS[Math.floor(random() * BUYERS.length)]!;

  /** One balanced entry: `lines` post debits as positive cents. */
  function entry(
    day: number,
    party: string,
    memo: string,
    site: string,
    activity: string,
    lines: (post: Post) => void,
  ): void {
    const journal = `J-${++number}`;
    lines((code, cents) => {
      if (cents === 0) return;
      if (!DEMO_ACCOUNTS[code]) throw new Error(`No such demo account: ${code}`);
      rows.push({
        day: fromDayNumber(day),
        journal,
        code,
        debit: Math.max(0, cents),
        credit: Math.max(0, -cents),
        party,
        memo,
        site,
        activity,
      });
    });
  }

  for (let m = 0; m < months; m++) {
    const season = m % 12;
    const year = 2024 + Math.floor((m + 6) / 12);
    const month = ((m + 6) % 12) + 1;
    const days = daysInMonth(year, month);
    const on = (date: number) => dayNumberOf(year, month, Math.min(days, Math.max(1, Math.round(date))));
    const growth = 1 + 0.045 * Math.floor(m / 12);
    const inflation = 1 + 0.03 * Math.floor(m / 12);
    const portion = (annual: number, s: Season) => {
      const shares: readonly number[] = SEASON[s];
      return (annual * shares[season]!) / shares.reduce((a, b) => a + b, 0);
    };
    const isOctober27 = m === 27;

    // Sales on account, in uneven invoices, and what customers pay of them.
    for (const [code, annual, s, sales, memo, site, activity] of INCOME) {
      let total = Math.round(portion(annual, s) * growth * vary(0.06) * 100);
      // Two refits that were due in October slipped into November.
      if (isOctober27 && code === '4100') total -= 675_000;
      if (total <= 0) continue;
      const count = Math.max(1, Math.round(sales * (0.5 + SEASON[s][season]! / 16)));
      const weights = Array.from({ length: count }, () => 40 + Math.floor(random() * 100));
      // One refit of October 2026 is a large one, and its invoice will be late.
      const parts =
        isOctober27 && code === '4100'
          ? [LATE_REFIT, ...splitByWeights(minor(total - LATE_REFIT), weights.slice(1))]
          : splitByWeights(minor(total), weights);
      parts.forEach((cents, i) => {
        const date = 1 + ((i + random() * 0.9) * (days - 1)) / count;
        const drawn = buyer();
        const isLate = cents === LATE_REFIT;
        const party = isLate ? 'Heron Charter Line' : drawn;
        if (!isLate)
          invoices.push({ party, cents, due: on(date) + HABITS[BUYERS.indexOf(party) % HABITS.length]! });
        entry(on(date), party, `${memo} ${String(number).slice(-3)}`, site, activity, (post) => {
          post('1200', cents);
          post(code, -cents);
        });
      });
    }
    // What stood open on the first day is paid in its first weeks.
    if (m === 0) {
      entry(on(5), 'Regatta committee', 'Payment received', 'North Yard', 'Berths', (post) => {
        post('1010', STOOD_OPEN.receivable);
        post('1200', -STOOD_OPEN.receivable);
      });
      entry(on(6), 'Harrow Marine Supply', 'Payment of bills', 'North Yard', 'Berths', (post) => {
        post('2010', STOOD_OPEN.payable);
        post('1010', -STOOD_OPEN.payable);
      });
    }

    // Money comes in on fourteen days: each customer pays once a month what is due by its habit; now and then one forgets.
    for (let i = 0; i < RECEIPTS; i++) {
      const day = on(3 + i * 1.9 + random() * 0.9);
      const forgets = buyer();
      for (const name of BUYERS.filter((b, k) => k % RECEIPTS === i && b !== forgets))
        pay(invoices, name, day, 'Payment received', '1010', '1200', entry);
    }

    // Chandlery: takings twice a week at both sites, with sales tax, and the stock that went out.
    for (const [code, annual, site] of [
      ['4200', 71_000, 'North Yard'],
      ['4210', 38_500, 'South Quay'],
    ] as const) {
      const total = Math.round(portion(annual, 'chandlery') * growth * vary(0.05) * 100);
      splitByWeights(
        minor(total),
        Array.from({ length: 9 }, () => 50 + Math.floor(random() * 60)),
      ).forEach((cents, i) => {
        const tax = Math.round(cents * 0.06);
        entry(on(2 + i * 3.2), 'Counter sales', 'Chandlery takings', site, 'Chandlery', (post) => {
          post('1010', cents + tax);
          post(code, -cents);
          post('2200', -tax);
        });
        const quarter = Math.floor(m / 3);
        taxDue.set(quarter, (taxDue.get(quarter) ?? 0) + tax);
      });
      const stock = Math.round(total * 0.6);
      entry(on(days), 'Stock count', 'Stock sold', site, 'Chandlery', (post) => {
        post('5020', stock);
        post('1300', -stock);
      });
      const bought = Math.round(stock * vary(0.1));
      bills.push({ party: 'Harrow Marine Supply', cents: bought, due: on(12) + BILL_DAYS });
      entry(on(12), 'Harrow Marine Supply', 'Chandlery stock bought', site, 'Chandlery', (post) => {
        post('1300', bought);
        post('2010', -bought);
      });
    }

    // Bills and their payment.
    for (const [code, annual, s, count, party, memo] of COSTS) {
      const steady = s === 'flat' && count === 1 ? 1 : vary(0.07);
      let total = Math.round(portion(annual, s) * inflation * steady * 100);
      // Power runs over in the present year: a new tariff that nobody put into the budget.
      if (code === '6200' && m >= 24) total = Math.round(total * 1.42);
      if (total <= 0) continue;
      splitByWeights(
        minor(total),
        Array.from({ length: count }, () => 50 + Math.floor(random() * 80)),
      ).forEach((cents, i) => {
        const day = on(4 + (i * 22) / count);
        bills.push({ party, cents, due: day + BILL_DAYS });
        entry(
          day,
          party,
          memo,
          i % 3 === 2 ? 'South Quay' : 'North Yard',
          code.startsWith('5') ? 'Workshop' : 'Berths',
          (post) => {
            post(code, cents);
            post('2010', -cents);
          },
        );
      });
    }
    for (const [code, at, amount, party, memo] of LUMPS) {
      if (at !== season) continue;
      const cents = Math.round(amount * inflation) * 100;
      entry(on(16), party, memo, 'North Yard', 'Berths', (post) => {
        post(code, cents);
        post('1010', -cents);
      });
    }
    // Bills are paid in six runs a month, each supplier in one of them.
    const suppliers = [...new Set(bills.map((bill) => bill.party))];
    for (let i = 0; i < BILL_RUNS; i++)
      for (const name of suppliers.filter((_, k) => k % BILL_RUNS === i))
        pay(bills, name, on(8 + i * 3.5), 'Payment of bills', '2010', '1010', entry);

    // Wages every second Friday: instructors in the season of courses only.
    for (let d = on(1); d <= on(days); d++) {
      if ((d - FIRST_PAYDAY) % 14 !== 0) continue;
      const yard = Math.round(10_300 * inflation * vary(0.015) * 100);
      const office = Math.round(1_780 * inflation * 100);
      const teachers =
        SEASON.courses[season]! > 0 ? Math.round(portion(24_500, 'courses') * inflation * 50) : 0;
      const gross = yard + office + teachers;
      const oncost = Math.round(gross * 0.09);
      entry(d, 'Payroll', 'Wages, two weeks', 'North Yard', 'Workshop', (post) => {
        post('6010', yard);
        post('6030', office);
        post('6020', teachers);
        post('6040', oncost);
        post('2100', -(oncost + Math.round(gross * 0.14)));
        post('1010', -(gross - Math.round(gross * 0.14)));
      });
      entry(
        d + 3 > on(days) ? on(days) : d + 3,
        'Tax office',
        'Payroll taxes',
        'North Yard',
        'Workshop',
        (post) => {
          post('2100', oncost + Math.round(gross * 0.14));
          post('1010', -(oncost + Math.round(gross * 0.14)));
        },
      );
    }

    // Once in a while.
    if (season === 0)
      entry(on(10), 'Members', 'Membership dues', 'North Yard', 'Berths', (post) => {
        post('1010', Math.round(9_600 * growth) * 100);
        post('4400', -Math.round(9_600 * growth) * 100);
      });
    if (season === 2 || season === 8)
      entry(on(15), 'Estuary Youth Fund', 'Youth program grant', 'South Quay', 'Sailing school', (post) => {
        post('1010', 1_200_000);
        post('4900', -1_200_000);
      });
    if (season % 3 === 0 && m > 0)
      entry(on(20), 'State Revenue', 'Sales tax, quarter', 'North Yard', 'Chandlery', (post) => {
        const tax = taxDue.get(Math.floor(m / 3) - 1) ?? 0;
        post('2200', tax);
        post('1010', -tax);
      });
    entry(on(days), 'Fixed assets', 'Depreciation', 'North Yard', 'Workshop', (post) => {
      const cents = m >= 14 ? 265_000 : 215_000;
      post('6500', cents);
      post('1590', -cents);
    });
    entry(on(days), 'First Estuary Bank', 'Interest received', 'North Yard', 'Berths', (post) => {
      const cents = Math.round(8_500 * vary(0.05));
      post('1020', cents);
      post('7010', -cents);
    });

    // A boat hoist, bought in September 2025 with a loan over five years at 7.2 percent.
    if (m === 14)
      entry(on(3), 'First Estuary Bank', 'Boat hoist, loan drawn', 'North Yard', 'Workshop', (post) => {
        post('1520', 7_200_000);
        post('2500', -loan);
        post('1010', loan - 7_200_000);
      });
    if (m > 14) {
      const interest = Math.round(loan * 0.006);
      entry(on(3), 'First Estuary Bank', 'Hoist loan payment', 'North Yard', 'Workshop', (post) => {
        post('2500', 119_374 - interest);
        post('8010', interest);
        post('1010', -119_374);
      });
      loan -= 119_374 - interest;
    }

    // Built out of what the good years left: pontoons in March 2026, the first part of a slipway in September.
    for (const [at, cents, memo] of [
      [20, 9_600_000, 'New pontoons, North Yard'],
      [26, 9_800_000, 'Slipway rebuild, first payment'],
    ] as const)
      if (m === at)
        entry(on(22), 'Quayside Civil Works', memo, 'North Yard', 'Berths', (post) => {
          post('1510', cents);
          post('1010', -cents);
        });

    // Two things to be found: a credit note in September 2025 and a miscoded bill in August 2026.
    if (m === 14) invoices.push({ party: 'Egret Charters', cents: -240_000, due: on(24) });
    if (m === 14)
      entry(on(24), 'Egret Charters', 'Credit note, gelcoat redone', 'North Yard', 'Workshop', (post) => {
        post('4100', 240_000);
        post('1200', -240_000);
      });
    if (m === 25) bills.push({ party: 'Harrow Marine Supply', cents: 184_000, due: on(19) + BILL_DAYS });
    if (m === 25)
      entry(
        on(19),
        'Harrow Marine Supply',
        'Antifouling paint, 40 cans',
        'North Yard',
        'Workshop',
        (post) => {
          post('6320', 184_000);
          post('2010', -184_000);
        },
      );
  }
  return rows.sort((a, b) =>
    a.day < b.day ? -1 : a.day > b.day ? 1 : Number(a.journal.slice(2)) - Number(b.journal.slice(2)),
  );
}
