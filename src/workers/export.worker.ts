import { reportXlsx } from '@/core/exchange/reportXlsx';
import type { ExportAnswer, ExportRequest } from './protocol';

const scope = self as unknown as {
  postMessage(message: ExportAnswer): void;
  onmessage: ((e: MessageEvent<ExportRequest>) => void) | null;
};

scope.onmessage = async ({ data }) => {
  try {
    scope.postMessage({ ok: true, bytes: await reportXlsx(data.table) });
  } catch (error) {
    scope.postMessage({ ok: false, message: error instanceof Error ? error.message : String(error) });
  }
};
