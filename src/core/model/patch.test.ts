import { applyPatches, enablePatches, produceWithPatches, type Draft } from 'immer';
import fc from 'fast-check';
import { patched } from './patch';

enablePatches();

type Doc = { lists: number[][]; table: Record<string, { value: number; deep: Record<string, number> }> };

const key = fc.constantFrom('a', 'b', 'c');
const small = fc.integer({ min: 0, max: 4 });
/** Something done to a document; what does not fit it does nothing. */
const deed = fc.oneof(
  fc.record({ do: fc.constant('set' as const), key, deep: key, n: small }),
  fc.record({ do: fc.constant('put' as const), key, n: small }),
  fc.record({ do: fc.constant('drop' as const), key }),
  fc.record({ do: fc.constant('push' as const), list: small, n: small }),
  fc.record({ do: fc.constant('insert' as const), list: small, n: small }),
  fc.record({ do: fc.constant('take' as const), list: small, at: small }),
  fc.record({ do: fc.constant('clear' as const), list: small }),
);

function act(doc: Draft<Doc>, d: typeof deed extends fc.Arbitrary<infer D> ? D : never): void {
  switch (d.do) {
    case 'set':
      if (doc.table[d.key]) doc.table[d.key]!.deep[d.deep] = d.n;
      return;
    case 'put':
      doc.table[d.key] = { value: d.n, deep: {} };
      return;
    case 'drop':
      delete doc.table[d.key];
      return;
    case 'push':
      (doc.lists[d.list] ?? doc.lists[doc.lists.push([]) - 1]!).push(d.n);
      return;
    case 'insert':
      doc.lists[d.list]?.unshift(d.n);
      return;
    case 'take':
      doc.lists[d.list]?.splice(d.at, 1);
      return;
    case 'clear':
      if (doc.lists[d.list]) doc.lists[d.list]!.length = 0;
  }
}

test('patches are applied as the library that wrote them applies them, there and back', () => {
  fc.assert(
    fc.property(fc.array(deed, { maxLength: 20 }), fc.array(deed, { maxLength: 20 }), (before, then) => {
      const empty: Doc = { lists: [], table: {} };
      const [doc] = produceWithPatches(empty, (d) => before.forEach((x) => act(d, x)));
      const was = JSON.stringify(doc);
      const [next, patches, inverse] = produceWithPatches(doc, (d) => then.forEach((x) => act(d, x)));
      expect(patched(doc, patches)).toEqual(applyPatches(doc, patches));
      expect(patched(doc, patches)).toEqual(next);
      expect(patched(next, inverse)).toEqual(doc);
      expect(JSON.stringify(doc)).toBe(was);
    }),
    { numRuns: 500 },
  );
});

test('what no patch names is the same object as before', () => {
  const doc = { a: { n: 1 }, b: { n: 2 } };
  const next = patched(doc, [{ op: 'replace', path: ['a', 'n'], value: 3 }]);
  expect(next.b).toBe(doc.b);
  expect(next.a).not.toBe(doc.a);
});

test.each([
  ['a path through what is not there', ['lists', 3, 0]],
  ['a path through a number', ['count', 'x']],
  ['a path to the prototype', ['__proto__', 'x']],
])('%s is refused', (_, path) => {
  expect(() => patched({ lists: [], count: 1 }, [{ op: 'add', path, value: 1 }])).toThrow(RangeError);
});

test('a patch without a path is the document itself', () => {
  expect(patched({ a: 1 }, [{ op: 'replace', path: [], value: { a: 2 } }])).toEqual({ a: 2 });
});
