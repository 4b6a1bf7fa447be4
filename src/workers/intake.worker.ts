import { fingerprint, readFile, type FileFacts } from '@/core/files';
import { guessMapping, guessShape, readDraft } from '@/core/intake';
import type { IntakeAnswer, IntakeRequest } from './protocol';

const PREVIEW_ROWS = 60;
const scope = self as unknown as {
  postMessage(message: IntakeAnswer, transfer?: Transferable[]): void;
  onmessage: ((e: MessageEvent<IntakeRequest>) => void) | null;
};

/** The file that is open: read once, read again by every mapping. */
let file: FileFacts | null = null;

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
      // Reckoned beside the reading: it is waited for only at the end.
      const print = fingerprint(request.bytes);
      const read = await readFile(request.bytes, { delimiter: request.delimiter, onProgress });
      if (!read.ok) return scope.postMessage({ id, type: 'refused', issue: read.issue });
      file = read.file;
      scope.postMessage({
        id,
        type: 'opened',
        file: {
          fingerprint: await print,
          format: file.format,
          encoding: file.encoding,
          delimiter: file.delimiter,
          sheets: file.grids.map((g) => ({
            name: g.sheet,
            rowCount: g.rows.length,
            rows: g.rows.slice(0, PREVIEW_ROWS),
          })),
          guess: guessMapping(file, 0, request.context),
        },
      });
      return;
    }
    case 'guess': {
      const guess = request.shape
        ? guessShape(file!, request.sheet, request.context, request.shape)
        : guessMapping(file!, request.sheet, request.context);
      return scope.postMessage({ id, type: 'guessed', guess });
    }
    case 'draft': {
      const draft = readDraft(file!, request.mapping, request.currency, onProgress);
      const { block } = draft;
      const columns = [
        block.day,
        block.account,
        block.amount,
        block.row,
        block.counterparty,
        block.reference,
        block.memo,
      ];
      return scope.postMessage(
        { id, type: 'draft', draft },
        columns.map((c) => c.buffer as ArrayBuffer),
      );
    }
  }
}
