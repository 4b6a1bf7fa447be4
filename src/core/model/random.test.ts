import fc from 'fast-check';
import { bookWith, budgetOf, byMonth, lastYear, line } from '../test/build';
import { COMMAND_TYPES, randomCommand, RANDOM_ACCOUNTS } from '../test/commands';
import { randomOf } from '../test/random';
import { openHistory, perform, redo, undo, type CommandType, type History } from '.';

/* Whatever is done, in whatever order: undo gives the book of before and redo that of after, to the letter. */

const start = (): History =>
  openHistory(
    bookWith(RANDOM_ACCOUNTS, {
      budgets: [
        budgetOf([line('sales', byMonth()), line('rent', lastYear()), line('power', byMonth())]),
        budgetOf([line('sales', lastYear())], 'b2'),
      ],
    }),
    [],
  );

/** Does so many commands and says how many were done; each must leave the command and the book of before as they were. */
function live(
  seed: number,
  length: number,
  types?: readonly CommandType[],
): ReadonlyMap<CommandType, number> {
  const r = randomOf(seed);
  const done = new Map<CommandType, number>();
  const texts: string[] = [];
  let history = start();
  for (let i = 0; i < length; i++) {
    const command = randomCommand(r, history.book, types);
    const [book, said] = [JSON.stringify(history.book), JSON.stringify(command)];
    const step = perform(history, command, 't');
    expect(JSON.stringify(command)).toBe(said);
    expect(JSON.stringify(history.book)).toBe(book);
    if (!step.ok || step.history === history) continue;
    texts.push(book);
    history = step.history;
    done.set(command.type, (done.get(command.type) ?? 0) + 1);
    const after = JSON.stringify(history.book);
    const back = undo(history, 't');
    expect(JSON.stringify(back.book)).toBe(book);
    expect(JSON.stringify(redo(back, 't').book)).toBe(after);
  }
  const last = JSON.stringify(history.book);
  const count = texts.length;
  while (texts.length > 0) {
    history = undo(history, 't');
    expect(JSON.stringify(history.book)).toBe(texts.pop());
  }
  for (let i = 0; i < count; i++) history = redo(history, 't');
  expect(JSON.stringify(history.book)).toBe(last);
  return done;
}

test('any commands', () => {
  const met = new Set<CommandType>();
  fc.assert(
    fc.property(fc.nat(), (seed) => live(seed, 60).forEach((_, type) => met.add(type))),
    { numRuns: 100, seed: 23 },
  );
  // Each kind was done at least once, not only refused.
  expect(COMMAND_TYPES.filter((type) => !met.has(type))).toEqual([]);
});

test('many commands on the same lines', () => {
  const types: CommandType[] = [
    'setRound',
    'takeReturn',
    'mergeReturn',
    'setCells',
    'restoreCells',
    'setMethods',
    'clearLines',
    'setLineNote',
    'setCellNote',
    'setLooked',
    'putScheduleRows',
    'mergeAccounts',
    'addAccount',
  ];
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      live(seed, 40, types);
    }),
    { numRuns: 60, seed: 23 },
  );
});
