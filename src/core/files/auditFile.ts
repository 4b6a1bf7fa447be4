import { ENTRY_HEADS } from './entryHeads';
import { gridOf, type FileRead, type GridCell } from './grid';
import { encodingOf, readXmlBytes } from './xmlBytes';

type Line = {
  account: string;
  debit: string;
  credit: string;
  text: string;
  party: string;
  segments: Map<string, string>;
};

/**
 * Reads the OECD's Standard Audit File for Tax (SAF-T) as a stream into one row an entry: opening balances of the
 * accounts first, then the lines of the general ledger's transactions. Element names are those of the OECD's schema
 * version 2.0 and its national variants, from memory: names are compared without namespace, and amounts stand either
 * in `DebitAmount`/`CreditAmount` with an inner `Amount` or directly. Entities of a document's own are refused.
 */
export function readAuditFile(bytes: Uint8Array, onProgress?: (share: number) => void): FileRead {
  const reader = new AuditReader();
  const issue = readXmlBytes(bytes, reader, onProgress);
  if (issue?.code === 'hostileXml' || issue?.code === 'unknownEncoding') return { ok: false, issue };
  if (!reader.isAuditFile) return { ok: false, issue: { code: issue ? 'brokenXml' : 'notAnAuditFile' } };
  if (issue) return { ok: false, issue };
  return {
    ok: true,
    file: {
      format: 'auditFile',
      encoding: encodingOf(bytes),
      delimiter: null,
      grids: [gridOf(null, reader.rows())],
      stated: reader.stated,
    },
  };
}

/** Follows the elements of an audit file and gathers accounts, opening balances and entries. */
class AuditReader {
  isAuditFile = false;
  private readonly path: string[] = [];
  private value = '';
  private readonly accounts = new Map<string, { name: string; type: string }>();
  private account: Record<string, string> | null = null;
  private readonly parties = new Map<string, string>();
  private party: Record<string, string> | null = null;
  private transaction: { id: string; date: string; text: string; party: string } | null = null;
  private line: Line | null = null;
  private analysis: { type: string; id: string } | null = null;
  private startDate = '';
  private count: number | null = null;
  private debit: string | null = null;
  private credit: string | null = null;
  private readonly openings: { account: string; debit: string; credit: string }[] = [];
  private readonly body: { date: string; id: string; line: Line }[] = [];
  private readonly segmentNames = new Set<string>();

  open(name: string): void {
    this.path.push(name);
    if (this.path.length === 1 && name === 'AuditFile') this.isAuditFile = true;
    this.value = '';
    if (name === 'Account' && this.inside('MasterFiles')) this.account = {};
    else if ((name === 'Customer' || name === 'Supplier') && this.inside('MasterFiles')) this.party = {};
    else if (name === 'Transaction' && this.inside('GeneralLedgerEntries'))
      this.transaction = { id: '', date: '', text: '', party: '' };
    else if (this.transaction && /^(Line|DebitLine|CreditLine)$/.test(name))
      this.line = { account: '', debit: '', credit: '', text: '', party: '', segments: new Map() };
    else if (name === 'Analysis' && this.line) this.analysis = { type: '', id: '' };
  }

  text(text: string): void {
    this.value += text;
  }

  close(name: string): void {
    this.path.pop();
    const value = this.value.trim();
    this.value = '';
    if (this.analysis) this.inAnalysis(name, value);
    else if (this.line) this.inLine(name, value);
    else if (this.transaction) this.inTransaction(name, value);
    else if (this.account) this.inAccount(name, value);
    else if (this.party) this.inParty(name, value);
    else if (name === 'SelectionStartDate') this.startDate = value;
    else if (name === 'PeriodStartDate' || name === 'StartDate') this.startDate ||= value;
    else if (this.path.at(-1) === 'GeneralLedgerEntries') {
      if (name === 'TotalDebit') this.debit = value;
      else if (name === 'TotalCredit') this.credit = value;
      else if (name === 'NumberOfEntries') this.count = Number(value) || null;
    }
  }

  private inside = (name: string): boolean => this.path.includes(name);

  private inAccount(name: string, value: string): void {
    const a = this.account!;
    if (name !== 'Account') {
      if (value !== '') a[name] ??= value;
      return;
    }
    this.account = null;
    const code = a.AccountID ?? '';
    if (code === '') return;
    this.accounts.set(code, {
      name: a.AccountDescription ?? '',
      type: a.AccountType ?? a.GroupingCategory ?? '',
    });
    if (a.OpeningDebitBalance || a.OpeningCreditBalance)
      this.openings.push({
        account: code,
        debit: a.OpeningDebitBalance ?? '',
        credit: a.OpeningCreditBalance ?? '',
      });
  }

  private inParty(name: string, value: string): void {
    const p = this.party!;
    if (name !== 'Customer' && name !== 'Supplier') {
      if (value !== '') p[name] ??= value;
      return;
    }
    this.party = null;
    const id = p.CustomerID ?? p.SupplierID;
    if (id) this.parties.set(id, p.Name ?? p.CompanyName ?? id);
  }

  private inTransaction(name: string, value: string): void {
    const t = this.transaction!;
    if (name === 'TransactionID') t.id ||= value;
    else if (name === 'TransactionDate' || name === 'GLPostingDate') t.date = value || t.date;
    else if (name === 'Description') t.text ||= value;
    else if (name === 'CustomerID' || name === 'SupplierID') t.party ||= value;
    else if (name === 'Transaction') this.transaction = null;
  }

  private inLine(name: string, value: string): void {
    const line = this.line!;
    const parent = this.path.at(-1);
    if (name === 'AccountID') line.account = value;
    else if (name === 'Description') line.text = value;
    else if (name === 'CustomerID' || name === 'SupplierID') line.party = value;
    else if (name === 'Amount' && (parent === 'DebitAmount' || parent === 'CreditAmount'))
      line[parent === 'DebitAmount' ? 'debit' : 'credit'] = value;
    else if (name === 'DebitAmount' && value !== '') line.debit ||= value;
    else if (name === 'CreditAmount' && value !== '') line.credit ||= value;
    else if (/^(Line|DebitLine|CreditLine)$/.test(name)) {
      const { id, date, text, party } = this.transaction!;
      line.text ||= text;
      line.party ||= party;
      this.body.push({ date: date.slice(0, 10), id, line });
      this.line = null;
    }
  }

  private inAnalysis(name: string, value: string): void {
    const a = this.analysis!;
    if (name === 'AnalysisType') a.type = value;
    else if (name === 'AnalysisID') a.id = value;
    else if (name === 'Analysis') {
      if (a.type && a.id) {
        this.segmentNames.add(a.type);
        this.line!.segments.set(a.type, a.id);
      }
      this.analysis = null;
    }
  }

  get stated() {
    return { entries: this.count, debit: this.debit, credit: this.credit };
  }

  rows(): GridCell[][] {
    const segments = [...this.segmentNames];
    const named = (code: string) => this.accounts.get(code) ?? { name: '', type: '' };
    const out: GridCell[][] = [[...ENTRY_HEADS, ...segments.map((s) => `Segment: ${s}`)]];
    const opened = this.startDate || this.body[0]?.date || '';
    for (const o of this.openings) {
      const { name, type } = named(o.account);
      out.push([opened, '', o.account, name, type, o.debit, o.credit, '', 'Opening balance']);
    }
    for (const { date, id, line } of this.body) {
      const { name, type } = named(line.account);
      out.push([
        date,
        id,
        line.account,
        name,
        type,
        line.debit,
        line.credit,
        this.parties.get(line.party) ?? line.party,
        line.text,
        ...segments.map((s) => line.segments.get(s) ?? ''),
      ]);
    }
    return out;
  }
}
