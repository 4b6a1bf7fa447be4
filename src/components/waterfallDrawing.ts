import type { Drawing, Token } from './Picture';

export type WaterfallStep = {
  readonly label: string;
  readonly value: number;
  readonly text: string;
  /** Where the bar stands: a whole result from zero, or a step from where the last one ended. */
  readonly kind: 'budget' | 'actual' | 'outlook' | 'good' | 'bad';
};

export const HEIGHT = 162;
/** The space of a label above or below a bar: it must never touch the names beneath. */
const LABEL = 21;

const MARGIN = { l: 8, r: 8, t: 4, b: 34 };

/** A label in at most two lines of some twelve letters: neighbors must not run into each other. */
function twoLines(label: string): string {
  const cut = (t: string) => (t.length > 13 ? `${t.slice(0, 12)}…` : t);
  if (label.length <= 13) return escapeTags(label);
  const at = label.lastIndexOf(' ', 13);
  return at > 3
    ? `${escapeTags(cut(label.slice(0, at)))}<br>${escapeTags(cut(label.slice(at + 1)))}`
    : escapeTags(cut(label));
}

/** The chart library reads a few tags in labels; an account's name is text. */
export const escapeTags = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

const heightOf = (s: WaterfallStep, base: number, floor: number): number =>
  base === 0 && floor > 0 && isWhole(s) ? s.value - floor : s.value;
const baseOf = (s: WaterfallStep, base: number, floor: number): number =>
  base === 0 && floor > 0 && isWhole(s) ? floor : base;
const widthOf = (s: WaterfallStep): number => (isWhole(s) ? 0.66 : 0.62);

/** What is expected, drawn over the plain bars: hatching is a trace's own, and no single bar's. */
function hatched(
  steps: readonly WaterfallStep[],
  bases: readonly number[],
  floor: number,
  token: Token,
): object {
  const own = steps.flatMap((s, i) => (s.kind === 'outlook' ? [{ s, i }] : []));
  return {
    type: 'bar',
    x: own.map(({ i }) => i),
    y: own.map(({ s, i }) => heightOf(s, bases[i]!, floor)),
    base: own.map(({ s, i }) => baseOf(s, bases[i]!, floor)),
    hoverinfo: 'skip',
    width: own.map(({ s }) => widthOf(s)),
    marker: {
      color: token('--sheet'),
      line: { color: token('--plan-line'), width: 1.2 },
      pattern: { shape: '/', fgcolor: token('--plan-line'), size: 6, solidity: 0.25 },
    },
  };
}

const isWhole = ({ kind }: WaterfallStep): boolean => kind !== 'good' && kind !== 'bad';

/** Where bars begin above zero, a slanted gap across the whole ones says so: their lengths do not compare. */
function cutMarks(steps: readonly WaterfallStep[], floor: number, high: number, token: Token): object[] {
  const tall = high - floor;
  const across = (i: number, at: number, color: string, width: number) => ({
    type: 'line',
    x0: i - 0.4,
    x1: i + 0.4,
    y0: floor + tall * (at - 0.03),
    y1: floor + tall * (at + 0.03),
    line: { color, width },
  });
  return steps.flatMap((s, i) =>
    isWhole(s)
      ? [
          across(i, 0.14, token('--sheet'), 5),
          across(i, 0.115, token('--faded'), 1),
          across(i, 0.165, token('--faded'), 1),
        ]
      : [],
  );
}

/** Where a result is below zero, the line from which all of them are drawn. */
const zeroLine = (steps: readonly WaterfallStep[], token: Token): object => ({
  type: 'line',
  x0: -0.5,
  x1: steps.length - 0.5,
  y0: 0,
  y1: 0,
  line: { color: token('--rule'), width: 1 },
});

/** The chart of these steps; `token` gives the look's colors. */
export function drawing(all: readonly WaterfallStep[], token: Token): Drawing {
  // What is too large to be told stands in the table only.
  const steps = all.map((s) => (Number.isNaN(s.value) ? { ...s, value: 0 } : s));
  const ink = token('--ink');
  const fill = {
    // Planned is outlined, expected hatched, what was is solid.
    budget: 'rgba(0,0,0,0)',
    outlook: token('--sheet'),
    actual: ink,
    good: token('--good'),
    bad: token('--bad'),
  };
  const line = {
    budget: token('--plan-line'),
    outlook: token('--plan-line'),
    actual: ink,
    good: token('--good'),
    bad: token('--bad'),
  };
  let level = 0;
  const bases = steps.map((s) => {
    if (s.kind === 'budget') {
      level = s.value;
      return 0;
    }
    if (s.kind === 'actual' || s.kind === 'outlook') {
      level = s.value;
      return 0;
    }
    const from = level;
    level += s.value;
    return from;
  });
  const tops = steps.flatMap((s, i) => [bases[i]!, bases[i]! + s.value]);
  const [low, high] = [Math.min(...tops), Math.max(...tops)];
  // Steps are small beside the results: start the axis near them unless zero is close by.
  const near = Math.min(
    ...steps.flatMap((s, i) =>
      s.kind === 'good' || s.kind === 'bad' ? [bases[i]!, bases[i]! + s.value] : [s.value],
    ),
  );
  const floor = low < 0 || near < high * 0.35 ? Math.min(0, low) : near - (high - near) * 0.6;
  const plot = HEIGHT - MARGIN.t - MARGIN.b;
  const pad = ((high - floor) * LABEL) / (plot - 2 * LABEL) || 1;
  return {
    data: [
      {
        type: 'bar',
        x: steps.map((_, i) => i),
        y: steps.map((s, i) => heightOf(s, bases[i]!, floor)),
        base: steps.map((s, i) => baseOf(s, bases[i]!, floor)),
        text: steps.map((s) => s.text),
        textposition: 'outside',
        cliponaxis: false,
        textfont: { family: token('--font-figures'), size: 12, color: ink },
        marker: {
          color: steps.map((s) => fill[s.kind]),
          line: { color: steps.map((s) => line[s.kind]), width: 1.2 },
        },
        hoverinfo: 'skip',
        width: steps.map(widthOf),
      },
      hatched(steps, bases, floor, token),
    ],
    layout: {
      barmode: 'overlay',
      margin: MARGIN,
      xaxis: {
        tickvals: steps.map((_, i) => i),
        ticktext: steps.map((s) => twoLines(s.label)),
        tickfont: { family: token('--font-words'), size: 11, color: token('--faded') },
        tickangle: 0,
        showgrid: false,
        zeroline: false,
        fixedrange: true,
      },
      yaxis: { visible: false, range: [floor - pad, high + pad], fixedrange: true },
      shapes: floor > 0 ? cutMarks(steps, floor, high, token) : low < 0 ? [zeroLine(steps, token)] : [],
    },
  };
}
