import type { Period, PeriodIndex } from '@/core/calendar';
import type { KeyEntry, Token } from '@/components/Picture';

export const PERIOD_KEYS: readonly KeyEntry[] = [
  { mark: 'solid', label: 'Closed' },
  { mark: 'hatched', label: 'Ahead' },
];

/** Bars of one row of figures by period: solid up to `start`, hatched from there on; `axis` of several in one picture. */
export function periodBars(
  token: Token,
  periods: readonly Period[],
  start: PeriodIndex,
  values: readonly (number | null)[],
  axis: string = '',
): object[] {
  const bars = (ahead: boolean, marker: object) => ({
    type: 'bar',
    x: periods.map((_, i) => i),
    y: values.map((v, i) => (periods[i]!.index > start === ahead ? v : null)),
    yaxis: `y${axis}`,
    hoverinfo: 'skip',
    width: 0.6,
    marker,
  });
  return [
    bars(false, { color: token('--ink') }),
    bars(true, {
      color: token('--sheet'),
      line: { color: token('--plan-line'), width: 1 },
      pattern: { shape: '/', fgcolor: token('--plan-line'), size: 5, solidity: 0.3 },
    }),
  ];
}

const small = (token: Token, font: string) => ({ family: token(font), size: 11, color: token('--faded') });

/** The axis of the periods beneath bars. */
export const periodAxis = (token: Token, periods: readonly Period[]): object => ({
  tickvals: periods.map((_, i) => i),
  ticktext: periods.map((p) => p.tick),
  tickfont: small(token, '--font-words'),
  showgrid: false,
  zeroline: false,
  fixedrange: true,
});

/** The axis of figures beside bars. */
export const figureAxis = (token: Token, nticks: number): object => ({
  tickfont: small(token, '--font-figures'),
  gridcolor: token('--rule'),
  zerolinecolor: token('--ink'),
  nticks,
  fixedrange: true,
});
