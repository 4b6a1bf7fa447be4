import type { PeriodIndex } from '@/core/calendar';
import type { Balances } from '@/core/ledger';
import type { Ground } from '@/core/ground';
import type { Account, Layout } from '@/core/model';
import type { ReportRow } from '../table';
import type { Compared } from './compared';
import type { UnitSeries } from './quantities';
import type { PlainRow, SizeOf } from './rows';
import type { Sides, SidesInput } from './sides';

type SetName = Layout['rows']['set'];

/** Sets of rows whose actuals go on by what is expected. */
const AHEAD: ReadonlySet<SetName> = new Set([
  'profitStatement',
  'balanceStatement',
  'cashFlow',
  'cashFlowDirect',
]);
/** Sets of rows that cannot tell segments apart. */
const WHOLE: ReadonlySet<SetName> = new Set([
  'balanceStatement',
  'cashFlow',
  'cashFlowDirect',
  'cash',
  'units',
]);

/** Whether the actuals of a set of rows go on by what is expected. */
export const goesAhead = (set: SetName): boolean => AHEAD.has(set);

/** Whether a set of rows can tell segments apart. */
export const tellsSegments = (set: SetName): boolean => !WHOLE.has(set);

/** What a layout's rows are of: accounts, or what stands in their place. */
export type RowSet = {
  readonly accounts: (ground: Ground, compared: Compared) => readonly Account[];
  readonly rows: (rows: Layout['rows'], accounts: readonly Account[], sizeOf: SizeOf) => readonly PlainRow[];
  /** Sides of its own; none: those of the ledger and its budgets. */
  readonly sides?: (input: SidesInput) => Sides;
  /** The periods that it knows actuals of, where they are others than the closed ones. */
  readonly knows?: (ground: Ground, compared: Compared, ledger: Balances) => (period: PeriodIndex) => boolean;
  readonly rollOf: (account: Account) => PlainRow['roll'];
  /** The unit of a row that is no money. */
  readonly unitOf?: (row: PlainRow) => ReportRow['unit'] | null;
  /** Quantities that amounts per unit divide by. */
  readonly units?: (ground: Ground, compared: Compared) => readonly UnitSeries[];
};
