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

/* Each kind of file is loaded when it is asked for. */
async function written(request: ExportRequest): Promise<Uint8Array> {
  if ('handouts' in request)
    return (await import('@/core/exchange/handoutFiles')).handoutFiles(request.handouts, (share) =>
      scope.postMessage({ ok: null, share }),
    );
  if ('pdf' in request) return (await import('@/core/exchange/pdf')).reportPdf(request.pdf);
  if ('reports' in request) return (await import('@/core/exchange/reportXlsx')).reportsXlsx(request.reports);
  return (await import('@/core/exchange/planXlsx')).planXlsx(request.sheets, request.currency);
}
