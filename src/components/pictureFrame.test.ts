import { framed, inLines } from './pictureFrame';

const widthOf = (t: string) => t.length * 6;
const token = (name: string) => name;

test('words go into lines that are no wider than there is room; a word that is wider stands alone', () => {
  expect(inLines('one two three four', 9, (t) => t.length)).toEqual(['one two', 'three', 'four']);
  expect(inLines('overlong a b', 4, (t) => t.length)).toEqual(['overlong', 'a b']);
});

test('a picture leaves with what it says, whose it is, and what its marks mean; what was drawn keeps its place', () => {
  const drawn = {
    data: [{ type: 'bar' }],
    layout: { margin: { l: 10, r: 10, t: 4, b: 30 }, annotations: [{ text: 'own' }] },
  };
  const keys = [
    { mark: 'solid', label: 'Actual' },
    { mark: 'bad', label: 'U: hurts it' },
  ] as const;
  const whole = framed(
    drawn,
    { message: 'Oct 2026: a loss of 15.', of: 'Pellow <Creek>' },
    'Net profit, Oct 2026, in thousands of USD',
    keys,
    { width: 600, height: 162 },
    token,
    widthOf,
  );
  const { layout } = whole as unknown as {
    layout: {
      margin: Record<string, number>;
      height: number;
      annotations: { text: string; yshift?: number }[];
      shapes: { fillcolor: string; x0: number; x1: number }[];
    };
  };
  expect(layout.annotations.map((a) => a.text)).toEqual([
    'own',
    'Oct 2026: a loss of 15.',
    'Pellow &lt;Creek&gt; · Net profit, Oct 2026, in thousands of USD',
    'Actual',
    'U: hurts it',
  ]);
  expect(layout.shapes.map((s) => s.fillcolor)).toEqual(['--ink', '--bad']);
  // The plot itself is as high as it was.
  expect(layout.height - layout.margin.t! - layout.margin.b!).toBe(162 - 4 - 30);
  expect(whole.height).toBe(layout.height);
  // The second mark begins beyond the first one's word.
  expect(layout.shapes[1]!.x0 - layout.shapes[0]!.x1).toBeGreaterThan(widthOf('Actual'));
});

test('without a message or marks there is no room for them', () => {
  const bare = framed(
    { data: [], layout: {} },
    { message: '', of: '' },
    'Bank',
    [],
    { width: 300, height: 100 },
    token,
    widthOf,
  );
  const said = framed(
    { data: [], layout: {} },
    { message: 'So.', of: '' },
    'Bank',
    [],
    { width: 300, height: 100 },
    token,
    widthOf,
  );
  expect(said.height).toBeGreaterThan(bare.height);
});
