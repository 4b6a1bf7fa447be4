import { createContext } from 'react';
import type { Drawing, KeyEntry, Token } from './Picture';
import { escapeTags } from './waterfallDrawing';

/** What a picture carries when it leaves the screen: what it says, and whose it is. */
export type Frame = { readonly message: string; readonly of: string };
export const FrameContext = createContext<Frame>({ message: '', of: '' });

type Rect = Readonly<Record<string, unknown>>;
const SIZE = { title: 16, words: 12 };
const LINE = 20;
const SIDE = 14;

/** Words in lines that are no wider than there is room. */
export function inLines(text: string, room: number, widthOf: (text: string) => number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && widthOf(`${last} ${word}`) <= room) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

/** How a mark looks as a small square. */
const MARK: Readonly<
  Record<KeyEntry['mark'], (token: Token) => { readonly fill: string; readonly line: string }>
> = {
  solid: (t) => ({ fill: t('--ink'), line: t('--ink') }),
  outlined: (t) => ({ fill: t('--plan-wash'), line: t('--plan-line') }),
  gray: (t) => ({ fill: t('--prior'), line: t('--prior') }),
  hatched: (t) => ({ fill: t('--sheet'), line: t('--plan-line') }),
  good: (t) => ({ fill: t('--good'), line: t('--good') }),
  bad: (t) => ({ fill: t('--bad'), line: t('--bad') }),
  line: (t) => ({ fill: t('--plan-line'), line: t('--plan-line') }),
};

/**
 * A drawing with its message, whose it is, what, when and in what unit above it, and what its marks mean below, on a ground of
 * its own: as it leaves. `height`: of the drawing; the whole is higher.
 */
export function framed(
  { data, layout }: Drawing,
  { message, of }: Frame,
  label: string,
  keys: readonly KeyEntry[],
  { width, height }: { readonly width: number; readonly height: number },
  token: Token,
  widthOf: (text: string, size: number) => number,
): Drawing & { readonly height: number } {
  const room = width - 2 * SIDE;
  const titles = message === '' ? [] : inLines(message, room, (t) => widthOf(t, SIZE.title));
  const words = inLines([of, label].filter(Boolean).join(' · '), room, (t) => widthOf(t, SIZE.words));
  const own = layout as {
    readonly margin?: Readonly<Record<'l' | 'r' | 't' | 'b', number>>;
    readonly annotations?: readonly object[];
    readonly shapes?: readonly object[];
  };
  const margin = own.margin ?? { l: 0, r: 0, t: 0, b: 0 };
  const above = (titles.length + words.length) * LINE + 14;
  const below = keys.length > 0 ? LINE + 14 : 8;
  const annotations: Rect[] = [];
  const shapes: Rect[] = [];
  const put = (text: string, x: number, y: number, edge: 'top' | 'bottom', size: number, family: string) =>
    annotations.push({
      text: escapeTags(text),
      x: 0,
      y: edge === 'top' ? 1 : 0,
      xref: 'paper',
      yref: 'paper',
      xanchor: 'left',
      yanchor: 'top',
      xshift: x - margin.l,
      yshift: edge === 'top' ? margin.t + above - y : -(margin.b + y),
      showarrow: false,
      align: 'left',
      font: { size, family: token(family), color: token(size === SIZE.title ? '--ink' : '--faded') },
    });
  titles.forEach((t, i) => put(t, SIDE, 8 + i * LINE, 'top', SIZE.title, '--font-title'));
  words.forEach((t, i) => put(t, SIDE, 10 + (titles.length + i) * LINE, 'top', SIZE.words, '--font-words'));
  let x = SIDE;
  for (const { mark, label: text } of keys) {
    const { fill, line } = MARK[mark](token);
    shapes.push({
      type: 'rect',
      xref: 'paper',
      yref: 'paper',
      xsizemode: 'pixel',
      ysizemode: 'pixel',
      xanchor: 0,
      yanchor: 0,
      x0: x - margin.l,
      x1: x - margin.l + 12,
      y0: -(margin.b + 8 + 11),
      y1: -(margin.b + 8 + 1),
      fillcolor: fill,
      line: { color: line, width: 1 },
    });
    put(text, x + 18, 5, 'bottom', SIZE.words, '--font-words');
    x += 18 + widthOf(text, SIZE.words) + 18;
  }
  return {
    data,
    height: height + above + below,
    layout: {
      ...layout,
      paper_bgcolor: token('--sheet'),
      plot_bgcolor: 'rgba(0,0,0,0)',
      showlegend: false,
      width,
      height: height + above + below,
      margin: { ...margin, t: margin.t + above, b: margin.b + below },
      annotations: [...(own.annotations ?? []), ...annotations],
      shapes: [...(own.shapes ?? []), ...shapes],
    },
  };
}
