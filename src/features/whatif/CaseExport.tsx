'use client';

import { documents, ExportMenu } from '@/components/ExportMenu';
import { exportCases } from '@/store/caseFiles';
import { AS_THE_BOOK } from '@/store/format';
import { exportCsv, exportPdf, exportXlsx } from '@/store/exports';
import { caseTables, type Shown } from './caseTables';

/** What is tried leaves as a workbook, a document, or plain tables. */
export function CaseExport({ shown }: { readonly shown: Shown }) {
  return (
    <ExportMenu
      xlsx="Workbook (XLSX)"
      onXlsx={() => void exportXlsx(...caseTables(shown))}
      more={[
        ...documents((paper) => void exportPdf(shown.ground, caseTables(shown), AS_THE_BOOK, paper)),
        { label: 'What it comes to (CSV)', run: () => void exportCsv(caseTables(shown)[1]!) },
        { label: 'What it moves (CSV)', run: () => void exportCsv(caseTables(shown)[3]!) },
        { label: 'For another book (JSON)', run: () => void exportCases(shown.ground) },
      ]}
      csv="What is assumed (CSV)"
      onCsv={() => void exportCsv(caseTables(shown)[0])}
    />
  );
}
