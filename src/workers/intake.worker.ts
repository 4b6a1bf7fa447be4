import { assertNever } from '@/core/assertNever';
import { fingerprint, readFile, type FileFacts } from '@/core/files';
import {
  entriesHere,
  feedFacts,
  guessShape,
  headsOf,
  matchAccounts,
  openDraft,
  proofOf,
  readDraft,
  settle,
  viewOf,
  type Draft,
  type Guess,
} from '@/core/intake';
import { buffersOf, type LedgerBlock } from '@/core/ledger';
import type { Account } from '@/core/model';
import type { Drafted, IntakeAnswer, IntakeRequest } from './protocol';

const PREVIEW_ROWS = 60;
const PREVIEW_COLUMNS = 200;
const scope = self as unknown as {
  postMessage(message: IntakeAnswer, transfer?: Transferable[]): void;
  onmessage: ((e: MessageEvent<IntakeRequest>) => void) | null;
};

/** The file that is open: read once, read again by every mapping; its draft, and the entries as proved last. */
let file: FileFacts | null = null;
let draft: Draft | null = null;
let settled: LedgerBlock | null = null;
let accounts: readonly Account[] = [];

scope.onmessage = async ({ data }) => {
  try {
    await answer(data);
  } catch (error) {
    scope.postMessage({
      id: data.id,
      type: 'failed',
      message: error instanceof Error ? error.message : String(error),
    });
  }
};

async function answer(request: IntakeRequest): Promise<void> {
  const { id } = request;
  const onProgress = (share: number) => scope.postMessage({ id, type: 'progress', share });
  switch (request.type) {
    case 'open': {
      const { content, context, currency } = request;
      accounts = request.accounts;
      const bytes =
        'file' in content
          ? new Uint8Array(await content.file.arrayBuffer())
          : new TextEncoder().encode(JSON.stringify(content.pull));
      // Reckoned beside the reading: it is waited for only at the end.
      const print = fingerprint(bytes);
      if ('pull' in content) file = feedFacts(content.pull);
      else {
        const read = await readFile(bytes, { delimiter: request.delimiter, onProgress });
        if (!read.ok) return scope.postMessage({ id, type: 'refused', issue: read.issue });
        file = read.file;
      }
      const opened = openDraft(file, 0, context, currency, onProgress);
      return scope.postMessage({
        id,
        type: 'opened',
        file: {
          fingerprint: await print,
          format: file.format,
          encoding: file.encoding,
          delimiter: file.delimiter,
          sheets: file.grids.map((g) => ({
            name: g.sheet,
            rows: g.head.slice(0, PREVIEW_ROWS).map((r) => r.slice(0, PREVIEW_COLUMNS)),
          })),
        },
        drafted: keep(opened.guess, opened.draft),
      });
    }
    case 'guess': {
      const { sheet, shape, context, currency } = request;
      const first = shape ? guessShape(file!, sheet, context, shape) : undefined;
      const opened = openDraft(file!, sheet, context, currency, onProgress, first);
      return scope.postMessage({ id, type: 'drafted', drafted: keep(opened.guess, opened.draft) });
    }
    case 'draft': {
      const { guess, mapping, currency, calendar } = request;
      const drafted = keep({ ...guess, mapping }, readDraft(file!, mapping, currency, calendar, onProgress));
      return scope.postMessage({ id, type: 'drafted', drafted });
    }
    case 'prove': {
      const { choices, ground } = request;
      settled = settle(draft!, choices, ground.calendar, ground.bases);
      return scope.postMessage({ id, type: 'proved', proof: proofOf(draft!, settled, choices, ground) });
    }
    case 'here': {
      const { choices, blocks } = request;
      const into = new Map(Object.entries(request.merged));
      const owners = settled!.accounts.map((id, place) =>
        place < choices.length ? choices[place]!.existing : id,
      );
      const here = entriesHere(settled!, owners, blocks, (id) => into.get(id) ?? id);
      return scope.postMessage({ id, type: 'counted', here });
    }
    case 'finish': {
      const block = settled!;
      file = draft = settled = null;
      return scope.postMessage({ id, type: 'finished', block }, [...new Set(buffersOf(block))]);
    }
    default:
      assertNever(request);
  }
}

function keep(guess: Guess, made: Draft): Drafted {
  draft = made;
  settled = null;
  return {
    guess,
    draft: viewOf(made),
    heads: headsOf(file!, guess.mapping),
    choices: matchAccounts(made, accounts),
  };
}
