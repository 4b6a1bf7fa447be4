'use client';

import { useContext, useEffect, useRef, useState } from 'react';
import { useComputedColorScheme } from '@mantine/core';
import { FrameContext, framed } from './pictureFrame';
import { UnitContext } from './unit';
import classes from './Picture.module.css';

export type Drawing = { readonly data: readonly object[]; readonly layout: object };
/** A color or font of the page, by its name. */
export type Token = (name: string) => string;
/** What a mark means. */
export type KeyEntry = {
  readonly mark: 'solid' | 'outlined' | 'gray' | 'hatched' | 'good' | 'bad' | 'line';
  readonly label: string;
};

function tokensOf(root: Element): Token {
  const style = getComputedStyle(root);
  return (name) => style.getPropertyValue(name).trim();
}

/**
 * A chart with the table that it is drawn from, the meaning of its marks, and its ways out as PNG and SVG. The chart library
 * is loaded when the first one is shown.
 */
export function Picture({
  label,
  draw,
  height,
  table,
  keys,
  fileName,
}: {
  readonly label: string;
  /** Made anew when this is another function. */
  readonly draw: (token: Token) => Drawing;
  readonly height: number;
  /** The same as rows of texts, the first of each its name. */
  readonly table: { readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] };
  readonly keys: readonly KeyEntry[];
  readonly fileName: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const frame = useContext(FrameContext);
  const unit = useContext(UnitContext);
  const [trouble, setTrouble] = useState(false);
  const scheme = useComputedColorScheme('light', { getInitialValueInEffect: true });

  useEffect(() => {
    const root = box.current!;
    let gone = false;
    const paint = async () => {
      const plotly = await import('plotly.js-finance-dist-min');
      // Figures come first: a picture is drawn when they stand.
      await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
      if (gone) return;
      const { data, layout } = draw(tokensOf(root));
      const bare = {
        paper_bgcolor: 'rgba(0,0,0,0)',
        plot_bgcolor: 'rgba(0,0,0,0)',
        showlegend: false,
        height,
      };
      await plotly.react(
        root,
        [...data],
        { ...bare, ...layout },
        {
          displayModeBar: false,
          staticPlot: true,
          responsive: true,
        },
      );
    };
    paint().catch(() => setTrouble(true));
    return () => {
      gone = true;
    };
  }, [draw, scheme, height]);

  useEffect(() => {
    const root = box.current!;
    return () => void import('plotly.js-finance-dist-min').then((p) => p.purge(root)).catch(() => undefined);
  }, []);

  const save = async (format: 'png' | 'svg') => {
    const plotly = await import('plotly.js-finance-dist-min');
    const root = box.current!;
    const token = tokensOf(root);
    const pen = document.createElement('canvas').getContext('2d')!;
    const widthOf = (text: string, size: number) => {
      pen.font = `${size}px ${token('--font-words')}`;
      return pen.measureText(text).width;
    };
    const size = { width: root.clientWidth, height };
    const what = unit === '' || label.includes(unit) ? label : `${label}, ${unit}`;
    const whole = framed(draw(token), frame, what, keys, size, token, widthOf);
    await plotly.downloadImage(
      { data: [...whole.data], layout: whole.layout },
      {
        format,
        filename: fileName,
        width: size.width,
        height: whole.height,
        ...(format === 'png' ? { scale: 2 } : {}),
      },
    );
  };
  return (
    <figure className={classes.figure} aria-label={label}>
      <div ref={box} style={{ height }} aria-hidden />
      {trouble && <p className="faded">The chart could not be drawn; its figures are in the table below.</p>}
      <figcaption className={classes.caption}>
        {keys.map((k) => (
          <span key={k.label} className={classes.key}>
            <i data-mark={k.mark} aria-hidden />
            {k.label}
          </span>
        ))}
        <span className={classes.ways}>
          <button type="button" onClick={() => void save('png')}>
            PNG
          </button>
          <button type="button" onClick={() => void save('svg')}>
            SVG
          </button>
        </span>
      </figcaption>
      <table className="srOnly">
        <caption>{label}</caption>
        <thead>
          <tr>
            {table.head.map((h, i) => (
              <th key={i} scope="col">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, c) =>
                c === 0 ? (
                  <th key={c} scope="row">
                    {cell}
                  </th>
                ) : (
                  <td key={c}>{cell}</td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
