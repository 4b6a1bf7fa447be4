import type { FileIssue } from './grid';
import { readXmlBytes } from './xmlBytes';

/** A part of an entry: one of the payments that a bank booked together. Texts as they stand in the file. */
export type FileDetail = {
  /** In the major unit with a point; empty where it is not said. */
  readonly amount: string;
  /** Whose money it is: who paid what came in, who is paid by what went out. */
  readonly counterparty: string;
  readonly reference: string;
  readonly memo: string;
};

/** An entry of a statement. */
export type FileEntry = {
  readonly amount: string;
  readonly currency: string;
  readonly into: boolean;
  readonly reverses: boolean;
  /** BOOK: booked; PDNG: pending; INFO: for information. */
  readonly status: string;
  /** Days by ISO 8601, empty where they are not said. */
  readonly booked: string;
  readonly value: string;
  /** The bank's own number of it. */
  readonly number: string;
  readonly memo: string;
  readonly details: readonly FileDetail[];
};

/** A balance of a statement: OPBD opening, PRCD as the statement before closed, CLBD closing; others are not of booked money. */
export type FileBalance = {
  readonly code: string;
  readonly amount: string;
  readonly currency: string;
  readonly into: boolean;
  readonly day: string;
};

export type FileStatement = {
  readonly number: string;
  /** The bank's number of the account: its IBAN, or another. */
  readonly account: string;
  readonly currency: string;
  readonly first: string;
  readonly last: string;
  readonly balances: readonly FileBalance[];
  readonly entries: readonly FileEntry[];
};

export type StatementsRead =
  | { readonly ok: true; readonly statements: readonly FileStatement[] }
  | {
      readonly ok: false;
      readonly issue: FileIssue | { readonly code: 'notStatements'; readonly found: string };
    };

type Node = {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  text: string;
  readonly inner: Node[];
};

/**
 * Reads bank statements in the form of ISO 20022, camt.053 (bank-to-customer statement; versions 001.02 to 001.13 alike in
 * what is read here). Element names are those of the standard's message definition, from memory: `Stmt` with `Acct/Id`,
 * `Bal` (`Tp/CdOrPrtry/Cd`, `Amt`, `CdtDbtInd`, `Dt`) and `Ntry` (`Amt`, `CdtDbtInd`, `RvslInd`, `Sts`, `BookgDt`,
 * `AcctSvcrRef`, `NtryDtls/TxDtls`). By the standard the indicator of a reversal is its own: a reversed credit is DBIT.
 */
export function readCamt(bytes: Uint8Array): StatementsRead {
  const statements: FileStatement[] = [];
  const path: Node[] = [];
  let root = '';
  let found = '';
  let entries: FileEntry[] = [];
  const issue = readXmlBytes(bytes, {
    open(name, attributes) {
      if (path.length === 0) root = name;
      if (path.length === 1) found ||= name;
      path.push({ name, attributes, text: '', inner: [] });
    },
    text(text) {
      const node = path.at(-1);
      if (node) node.text += text;
    },
    close(name) {
      const node = path.pop()!;
      const parent = path.at(-1);
      // An entry is read as it ends: a statement of a year is never held as a whole.
      if (name === 'Ntry' && parent?.name === 'Stmt') entries.push(entryOf(node));
      else if (name === 'Stmt' && parent?.name === 'BkToCstmrStmt') {
        statements.push(statementOf(node, entries));
        entries = [];
      } else if (path.some((p) => p.name === 'Stmt')) parent?.inner.push(node);
    },
  });
  if (issue) return { ok: false, issue };
  if (root !== 'Document' || found !== 'BkToCstmrStmt')
    return { ok: false, issue: { code: 'notStatements', found: found || root } };
  return { ok: true, statements };
}

const child = (node: Node | undefined, ...names: readonly string[]): Node | undefined =>
  names.reduce<Node | undefined>((at, name) => at?.inner.find((n) => n.name === name), node);
const textOf = (node: Node | undefined, ...names: readonly string[]): string =>
  child(node, ...names)?.text.trim() ?? '';
const all = (node: Node | undefined, name: string): readonly Node[] =>
  node?.inner.filter((n) => n.name === name) ?? [];
const firstOf = (...texts: readonly string[]): string => texts.find((t) => t !== '') ?? '';

/** A day: of an instant, its own. */
const dayIn = (node: Node | undefined): string =>
  firstOf(textOf(node, 'Dt'), textOf(node, 'DtTm')).slice(0, 10);
const isInto = (node: Node): boolean => textOf(node, 'CdtDbtInd') === 'CRDT';

function statementOf(node: Node, entries: readonly FileEntry[]): FileStatement {
  const account = child(node, 'Acct');
  return {
    number: firstOf(textOf(node, 'ElctrncSeqNb'), textOf(node, 'LglSeqNb'), textOf(node, 'Id')),
    account: firstOf(textOf(account, 'Id', 'IBAN'), textOf(account, 'Id', 'Othr', 'Id')),
    currency: textOf(account, 'Ccy'),
    first: firstOf(textOf(node, 'FrToDt', 'FrDtTm'), textOf(node, 'FrToDt', 'FrDt')).slice(0, 10),
    last: firstOf(textOf(node, 'FrToDt', 'ToDtTm'), textOf(node, 'FrToDt', 'ToDt')).slice(0, 10),
    balances: all(node, 'Bal').map((b) => ({
      code: firstOf(textOf(b, 'Tp', 'CdOrPrtry', 'Cd'), textOf(b, 'Tp', 'CdOrPrtry', 'Prtry')),
      amount: textOf(b, 'Amt'),
      currency: child(b, 'Amt')?.attributes.Ccy ?? '',
      into: isInto(b),
      day: dayIn(child(b, 'Dt')),
    })),
    entries,
  };
}

function entryOf(node: Node): FileEntry {
  const into = isInto(node);
  const details = all(node, 'NtryDtls').flatMap((d) => all(d, 'TxDtls'));
  return {
    amount: textOf(node, 'Amt'),
    currency: child(node, 'Amt')?.attributes.Ccy ?? '',
    into,
    reverses: textOf(node, 'RvslInd') === 'true' || textOf(node, 'RvslInd') === '1',
    status: firstOf(textOf(node, 'Sts', 'Cd'), textOf(node, 'Sts')),
    booked: dayIn(child(node, 'BookgDt')),
    value: dayIn(child(node, 'ValDt')),
    number: firstOf(textOf(node, 'AcctSvcrRef'), textOf(node, 'NtryRef')),
    memo: textOf(node, 'AddtlNtryInf'),
    details: details.map((d) => detailOf(d, into)),
  };
}

function detailOf(node: Node, into: boolean): FileDetail {
  const parties = child(node, 'RltdPties');
  const party = child(parties, into ? 'Dbtr' : 'Cdtr');
  const info = child(node, 'RmtInf');
  const end = textOf(node, 'Refs', 'EndToEndId');
  const structured = all(info, 'Strd').flatMap((s) => [
    textOf(s, 'CdtrRefInf', 'Ref'),
    ...all(s, 'RfrdDocInf').map((r) => textOf(r, 'Nb')),
  ]);
  return {
    amount: firstOf(textOf(node, 'Amt'), textOf(node, 'AmtDtls', 'TxAmt', 'Amt')),
    counterparty: firstOf(textOf(party, 'Nm'), textOf(party, 'Pty', 'Nm')),
    reference: firstOf(
      ...structured,
      // What the payer left out stands so by the standard's usage.
      end === 'NOTPROVIDED' ? '' : end,
      textOf(node, 'Refs', 'ChqNb'),
    ),
    memo: firstOf(
      all(info, 'Ustrd')
        .map((u) => u.text.trim())
        .join(' '),
      textOf(node, 'AddtlTxInf'),
    ),
  };
}
