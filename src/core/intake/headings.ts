import type { EntryRole } from './mapping';

const ROLE_WORDS: readonly (readonly [EntryRole, RegExp])[] = [
  [
    'date',
    /^(posting |transaction |entry |trans\.? |value |document |invoice |booking |gl )?date$|^datum$|^day$|^posted( on)?$|^fecha$/i,
  ],
  ['debit', /^(debits?|dr\.?|soll|debe)( amount)?( \(.*\))?$|amount debit/i],
  ['credit', /^(credits?|cr\.?|haben|haber)( amount)?( \(.*\))?$|amount credit/i],
  [
    'mark',
    /^(d\/c|dc|dr\/cr|cr\/dr|c\/d|debit\/credit|d-c|s\/h|side|(d\/c|debit\/credit|dr\/cr|dc) (mark|flag|indicator|code))$/i,
  ],
  [
    'amount',
    /^(net |transaction |posted |signed )?(amount|value|betrag|importe|montant|movement)( \(.*\)| in .*)?$/i,
  ],
  ['balance', /^(running |account |closing |ending |net )?balance( \(.*\))?$|^saldo$/i],
  ['type', /^(account |acct )(type|class|category)$|^account kind$/i],
  [
    'code',
    /^(gl |g\/l |ledger |account |acct\.? |nominal )+(code|no\.?|number|num|#|id)$|^(code|konto|kontonummer|nominal|gl|cuenta|compte)$/i,
  ],
  [
    'name',
    /^(account|acct\.?|gl account|ledger|nominal) ?(name|description|title)$|^kontobezeichnung$|^kontoname$/i,
  ],
  ['account', /^(gl |g\/l |ledger |nominal )?(account|acct\.?)$/i],
  [
    'segment',
    /^(segment: .*|(department|dept\.?|division|location|site|branch|store|shop|class|project|job|fund|cost cent(er|re)|profit cent(er|re)|activity|program(me)?|region|area|business unit|segment|grant|property|campus|restriction|dimension|tag|analysis|team|office|outlet|warehouse|channel|product line|funder|funding( source| stream)?)( (code|name|id|no\.?))?( ?#?\d{1,2})?)$/i,
  ],
  [
    'counterparty',
    /^(counterparty|customer|vendor|supplier|payee|contact|(customer|vendor|name)\/.*|party|partner|name|customer or supplier)$/i,
  ],
  [
    'reference',
    /^(reference|ref\.?|(journal|voucher|document|doc|entry|transaction|trans|invoice|batch|je)[ .]*(no\.?|number|num|#|id|ref\.?)|journal|voucher|belegnummer|beleg|number|num|no\.?)$/i,
  ],
  [
    'memo',
    /^(memo|description|details?|narration|narrative|text|comment|notes?|particulars|buchungstext|explanation|line description|memo\/description)$/i,
  ],
  ['type', /^(type|class|category)$/i],
];

/** The role that a column heading names, or null. */
export function roleByHeading(text: string): EntryRole | null {
  const t = text.trim();
  return ROLE_WORDS.find(([, words]) => words.test(t))?.[0] ?? null;
}
