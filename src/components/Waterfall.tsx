'use client';

import { useEffect, useRef, useState } from 'react';
import { useComputedColorScheme } from '@mantine/core';
import classes from './Waterfall.module.css';

export type WaterfallStep = {
  readonly label: string;
  readonly value: number;
  readonly text: string;
  /** Where the bar stands: a whole result from zero, or a step from where the last one ended. */
  readonly kind: 'budget' | 'actual' | 'good' | 'bad';
};

/** A chart that leads from one result to another. The chart library is loaded when the first one is shown. */
export function Waterfall({
  steps,
  label,
}: {
  readonly steps: readonly WaterfallStep[];
  readonly label: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [trouble, setTrouble] = useState(false);
  const scheme = useComputedColorScheme('light', { getInitialValueInEffect: true });

  useEffect(() => {
    const root = box.current!;
    let gone = false;
    const draw = async () => {
      const plotly = await import('plotly.js-finance-dist-min');
      if (gone) return;
      const { data, layout } = drawing(steps, root);
      await plotly.react(root, data, layout, { displayModeBar: false, staticPlot: true, responsive: true });
    };
    draw().catch(() => setTrouble(true));
    return () => {
      gone = true;
    };
  }, [steps, scheme]);

  useEffect(() => {
    const root = box.current!;
    return () => void import('plotly.js-finance-dist-min').then((p) => p.purge(root)).catch(() => undefined);
  }, []);

  return (
    <figure className={classes.figure} aria-label={label}>
      <div ref={box} className={classes.chart} aria-hidden />
      {trouble && <p className="faded">The chart could not be drawn; its figures are in the table below.</p>}
      <table className="srOnly">
        <caption>{label}</caption>
        <tbody>
          {steps.map((s, i) => (
            <tr key={i}>
              <th scope="row">{s.label}</th>
              <td>{s.text}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}

const HEIGHT = 158;
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
const escapeTags = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

function drawing(all: readonly WaterfallStep[], root: HTMLElement): { data: object[]; layout: object } {
  // What is too large to be told stands in the table only.
  const steps = all.map((s) => (Number.isNaN(s.value) ? { ...s, value: 0 } : s));
  const style = getComputedStyle(root);
  const token = (name: string) => style.getPropertyValue(name).trim();
  const ink = token('--ink');
  const fill = { budget: token('--plan-wash'), actual: ink, good: token('--good'), bad: token('--bad') };
  const line = { budget: token('--plan-line'), actual: ink, good: token('--good'), bad: token('--bad') };
  let level = 0;
  const bases = steps.map((s) => {
    if (s.kind === 'budget') {
      level = s.value;
      return 0;
    }
    if (s.kind === 'actual') return 0;
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
        y: steps.map((s, i) => (bases[i] === 0 && floor > 0 ? s.value - floor : s.value)),
        base: bases.map((b, i) =>
          b === 0 && floor > 0 && (steps[i]!.kind === 'budget' || steps[i]!.kind === 'actual') ? floor : b,
        ),
        text: steps.map((s) => s.text),
        textposition: 'outside',
        cliponaxis: false,
        textfont: { family: token('--font-figures'), size: 12, color: ink },
        marker: {
          color: steps.map((s) => fill[s.kind]),
          line: { color: steps.map((s) => line[s.kind]), width: 1.2 },
        },
        hoverinfo: 'skip',
        width: steps.map((s) => (s.kind === 'good' || s.kind === 'bad' ? 0.62 : 0.66)),
      },
    ],
    layout: {
      height: HEIGHT,
      margin: MARGIN,
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      showlegend: false,
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
    },
  };
}
