import { reportXlsx } from '@/core/exchange/reportXlsx';
import { planXlsx } from '@/core/exchange/planXlsx';
import type { ExportAnswer, ExportRequest } from './protocol';

const scope = self as unknown as {
  postMessage(message: ExportAnswer): void;
  onmessage: ((e: MessageEvent<ExportRequest>) => void) | null;
};

scope.onmessage = async ({ data }) => {
  try {
    scope.postMessage({ ok: true, bytes: await written(data) });
  } catch (error) {
    scope.postMessage({ ok: false, message: error instanceof Error ? error.message : String(error) });
  }
};

const written = (request: ExportRequest): Promise<Uint8Array> =>
  'table' in request ? reportXlsx(request.table) : planXlsx(request.sheets, request.currency);
