/** A piece of a formula and where it stands in the text. */
export type Token = {
  readonly kind: 'number' | 'name' | 'word' | 'sign' | 'end';
  /** A name without its quotes; a sign in its plain form. */
  readonly text: string;
  readonly at: number;
  readonly length: number;
};

const PIECE =
  /\s*(?:(?<number>\d+(?:\.\d*)?|\.\d+)|"(?<name>(?:[^"]|"")*)"|(?<word>[A-Za-z]+)|(?<sign><=|>=|<>|[-+*/×÷−()<>=≤≥≠,%]))/uy;
const PLAIN: Readonly<Record<string, string>> = {
  '×': '*',
  '÷': '/',
  '−': '-',
  '≤': '<=',
  '≥': '>=',
  '≠': '<>',
};

/** The pieces of a formula, closed by an `end`; the place of the first letter that begins no piece otherwise. */
export function tokensOf(text: string): { readonly tokens: Token[] } | { readonly strange: number } {
  const tokens: Token[] = [];
  let at = 0;
  while (/\S/.test(text.slice(at))) {
    PIECE.lastIndex = at;
    const m = PIECE.exec(text);
    if (!m) return { strange: at + (text.slice(at).length - text.slice(at).trimStart().length) };
    const [kind, found] = Object.entries(m.groups!).find(([, v]) => v !== undefined) as [
      Token['kind'],
      string,
    ];
    const whole = m[0].trimStart();
    const start = at + m[0].length - whole.length;
    tokens.push({
      kind,
      text:
        kind === 'name'
          ? found.replaceAll('""', '"')
          : kind === 'word'
            ? found.toLowerCase()
            : (PLAIN[found] ?? found),
      at: start,
      length: whole.length,
    });
    at = PIECE.lastIndex;
  }
  tokens.push({ kind: 'end', text: '', at: text.length, length: 0 });
  return { tokens };
}
