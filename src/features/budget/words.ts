import type { FiscalCalendar } from '@/core/calendar';
import type { Method, MethodKind } from '@/core/model';
import type { LineIssue, Reason, StartFrom } from '@/core/plan';
import type { MoneyFormat } from '@/store/format';

export const METHOD_NAMES: Record<MethodKind, string> = {
  byMonth: 'By month',
  lastYear: 'Last year',
  even: 'Even',
  pattern: 'Pattern',
  share: 'Share of',
};

export const METHOD_HINTS: Record<MethodKind, string> = {
  byMonth: 'Each month as you type it. A blank month says nothing; zero says zero.',
  lastYear: 'Each month as it was last year, with an uplift.',
  even: 'One amount for the year, the same every month.',
  pattern: 'One amount for the year, shaped like last year’s months.',
  share: 'A percentage of another line, month by month.',
};

const signed = (p: string) => (p.startsWith('-') ? `−${p.slice(1)}` : `+${p}`);

/** The badge of a line: the method in a word, with its uplift. */
export function methodBadge(method: Method): string {
  switch (method.kind) {
    case 'byMonth':
      return METHOD_NAMES.byMonth;
    case 'lastYear':
      return method.uplift === '0' ? 'Last year' : `Last year ${signed(method.uplift)}%`;
    case 'even':
      return method.basis.of === 'average'
        ? 'Average month'
        : method.basis.of === 'lastMonth'
          ? 'Last month'
          : 'Even';
    case 'pattern':
      return 'Pattern';
    case 'share':
      return `Share ${method.percent}%`;
  }
}

export const ISSUE_WORDS: Record<LineIssue, string> = {
  noLastYear: 'The ledger has nothing for this account in the year before, so there is nothing to take over.',
  nothingToFollow:
    'Last year’s months are empty or cancel out, so there is no pattern to follow: the amount is spread evenly.',
  cycle:
    'This line depends on itself through other lines. Choose another line or method; all other lines are reckoned.',
  lineMissing: 'The line it is a share of is not in this budget.',
  tooLarge: 'Its months would be larger than any amount can be: last year’s months may all but cancel out.',
};

export const START_WORDS: Record<StartFrom, { readonly name: string; readonly hint: string }> = {
  sameMonth: {
    name: 'The same month last year',
    hint: 'Keeps the seasons of the business: lumps stay in their months.',
  },
  yearOverTwelve: {
    name: 'Last year’s total, a twelfth each month',
    hint: 'For costs and income without seasons.',
  },
  average: {
    name: 'The average of the months there are',
    hint: 'For a young business with only some months in the ledger.',
  },
  lastMonth: {
    name: 'The last month carried on',
    hint: 'For a business that has changed: every month as the latest one.',
  },
  empty: { name: 'Empty', hint: 'Every line is typed. Blank until then.' },
};

/** One step of how a month was made, in words, and its figure. */
export function reasonWords(
  reason: Reason,
  money: MoneyFormat,
  calendar: FiscalCalendar,
  accountName: (id: string) => string,
): { readonly text: string; readonly figure: string } {
  switch (reason.step) {
    case 'typed':
      return reason.instead === null
        ? { text: reason.value === null ? 'Nothing typed' : 'Typed', figure: money.exact(reason.value) }
        : {
            text: `Typed over ${money.exact(reason.instead)}`,
            figure: reason.value === null ? 'blank' : money.exact(reason.value),
          };
    case 'lastYearMonth':
      return {
        text: `${calendar.period(reason.period).label}, actual`,
        figure: reason.value === null ? 'nothing' : money.exact(reason.value),
      };
    case 'annual':
      return { text: annualWords(reason), figure: money.exact(reason.value) };
    case 'uplift':
      return { text: `${signed(reason.percent)}%`, figure: money.exact(reason.value) };
    case 'evenPart':
      return { text: 'an even part', figure: money.exact(reason.value) };
    case 'patternPart':
      return {
        text: `last year’s part: ${money.exact(reason.part)} of ${money.exact(reason.of)}`,
        figure: money.exact(reason.value),
      };
    case 'rounding':
      return { text: 'rounding that keeps the year’s total', figure: money.signed(reason.difference) };
    case 'share':
      return {
        text: `${reason.percent}% of ${accountName(reason.of)}`,
        figure: reason.value === null ? 'blank' : money.exact(reason.value),
      };
    case 'result':
      return { text: 'in the sheet', figure: reason.value === null ? 'blank' : money.exact(reason.value) };
  }
}

function annualWords(reason: Extract<Reason, { step: 'annual' }>): string {
  switch (reason.basis) {
    case 'amount':
    case 'pattern':
      return 'Amount for the year';
    case 'lastYear':
      return 'Last year’s total';
    case 'average':
      return `Average of ${reason.months} months, for a year`;
    case 'lastMonth':
      return 'The last month, for a year';
  }
}
