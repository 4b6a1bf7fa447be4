import type { Account } from './schema';
import type { AccountKind } from './kinds';

/*
 * What an account is for beyond its kind: one table of words, by which names of charts of accounts in twelve languages tell it
 * (common practice of charts; words from memory). What someone says of an account goes before its name.
 */

export const NATURES = [
  'wages',
  'oncosts',
  'withheld',
  'loan',
  'creditLine',
  'interest',
  'accrued',
  'asset',
  'accumulated',
  'depreciation',
  'gain',
  'prepaid',
  'deferred',
  'tax',
  'taxOwed',
  'salesTax',
  'badDebt',
  'equity',
] as const;
export type Nature = (typeof NATURES)[number];

type Words = {
  /** The kinds of account that may be it. */
  readonly kinds: readonly AccountKind[];
  /** Stems of words, by language: any of them in a name tells it. */
  readonly words: Readonly<Record<string, string>>;
  /** Stems that tell that it is something else. */
  readonly not?: string;
};

const COSTS: readonly AccountKind[] = ['expense', 'costOfSales', 'otherExpense'];
const OWED: readonly AccountKind[] = ['otherLiability', 'taxPayable', 'payable'];

const INTEREST = {
  en: 'interest',
  de: 'zins',
  fr: 'intérêt|\\bagios',
  es: 'interes(es)?\\b|\\binterés',
  it: 'interessi',
  pt: '\\bjuros?\\b',
  nl: '\\brente(lasten|kosten|n)?\\b',
  sv: '\\bränt',
  da: '\\brente(udgift|omkostning)',
  no: '\\brente(kostnad|utgift)',
  fi: 'korko',
  pl: 'odsetk',
};
const DEPRECIATION = {
  en: 'depreciation|amorti[sz]ation|impairment',
  de: 'abschreibung|wertminderung|\\bafa\\b',
  fr: 'amortissement|dépréciation',
  es: 'amortizaci|depreciaci|deterioro',
  it: 'ammortament|svalutazion',
  pt: 'amortizaç|depreciaç|imparidade',
  nl: 'afschrijving',
  sv: 'avskrivning|nedskrivning',
  da: 'afskrivning|nedskrivning',
  no: 'avskrivning|nedskrivning',
  fi: 'poisto|arvonalen',
  pl: 'amortyzac|umorzen',
};
const INCOME_TAX = {
  en: 'income tax|corporat(e|ion) tax|tax(es)? on (profit|income)|profit tax',
  de: 'körperschafts?steuer|gewerbesteuer|ertragst?steuer|steuern vom einkommen',
  fr: 'impôts? sur les? (bénéfice|société|résultat|revenu)',
  es: 'impuesto (sobre|de) (la |las |los )?(sociedades|beneficio|renta|ganancia)',
  it: 'imposte? sul reddito|\\bires\\b|\\birap\\b',
  pt: 'imposto sobre o (rendimento|lucro)|\\birc\\b',
  nl: 'vennootschapsbelasting|winstbelasting',
  sv: 'bolagsskatt|inkomstskatt',
  da: 'selskabsskat|indkomstskat',
  no: 'selskapsskatt|inntektsskatt|skattekostnad',
  fi: 'tulovero|yhteisövero',
  pl: 'podat(ek|ku) dochodow|\\bcit\\b',
};

const TABLE: Readonly<Record<Nature, Words>> = {
  wages: {
    kinds: ['expense', 'costOfSales'],
    words: {
      en: '\\bwages?\\b|salar(y|ies)|payroll|\\bpay\\b|staff|remuneration',
      de: 'lohn|löhne|gehalt|gehälter|personalaufw|personalkost',
      fr: 'salaire|rémunération|appointement',
      es: 'sueldo|salario|nómina|remuneraci',
      it: 'stipend|\\bsalari|retribuzion',
      pt: 'salário|ordenado|remuneraç',
      nl: '\\blonen\\b|loonkosten|salaris',
      sv: '\\blön(er|e)?\\b|lönekost',
      da: '\\bløn(ninger)?\\b|gager',
      no: '\\blønn',
      fi: 'palkat|palkka',
      pl: 'wynagrodze|płac',
    },
    not: 'on-?cost|tax|training|pension|insurance|steuer|sozial|versicherung|nebenkost|social|sociaux|contribut|sociaal|avgift',
  },
  oncosts: {
    kinds: ['expense', 'costOfSales'],
    words: {
      en: 'on-?costs?|payroll tax|social security|social charge|pension|employer|national insurance|benefit',
      de: 'sozialabgab|sozialversicher|soziale? aufw|lohnnebenkost|arbeitgeber|personalnebenkost',
      fr: 'charges (sociales|de sécurité sociale)|cotisations|urssaf',
      es: 'seguridad social|cargas sociales',
      it: 'contributi|oneri sociali|\\binps\\b',
      pt: 'segurança social|encargos sociais',
      nl: 'sociale (lasten|premies)|pensioen',
      sv: 'sociala avgifter|arbetsgivaravgift|pension',
      da: '\\batp\\b|sociale bidrag|pension',
      no: 'arbeidsgiveravgift|pensjon',
      fi: 'henkilösivukulut|eläke',
      pl: '\\bzus\\b|ubezpieczenia społeczn',
    },
  },
  withheld: {
    kinds: OWED,
    words: {
      en: 'payroll|withh|\\bwages?\\b|\\bpaye\\b|social',
      de: 'lohnsteuer|sozialversicher|\\blohn|\\blöhne',
      fr: 'personnel|sécurité sociale|organismes sociaux|urssaf',
      es: 'retencion|seguridad social',
      it: 'ritenut|istituti previdenz|\\binps\\b',
      pt: 'retenç|segurança social',
      nl: 'loonheffing|loonbelasting|sociale',
      sv: 'personalskatt|källskatt|sociala',
      da: 'a-skat|am-bidrag|\\batp\\b',
      no: 'forskuddstrekk|arbeidsgiveravgift',
      fi: 'ennakonpidätys',
      pl: '\\bzus\\b|\\bpit\\b|wynagrodze',
    },
  },
  loan: {
    kinds: ['loan'],
    words: {
      en: 'loan|mortgage|\\bnote',
      de: 'darlehen|kredit|hypothek',
      fr: 'emprunt|prêt',
      es: 'préstamo|hipoteca',
      it: 'mutuo|finanziament',
      pt: 'empréstimo|financiamento',
      nl: 'lening|hypothe',
      sv: '\\blån|skuld till kreditinstitut',
      da: '\\blån|prioritet',
      no: '\\blån|pantelån',
      fi: 'laina',
      pl: 'kredyt|pożyczk',
    },
  },
  creditLine: {
    kinds: ['loan', 'otherLiability'],
    words: {
      en: 'line of credit|credit line|overdraft|revolv|credit facility',
      de: 'kontokorrent|kreditlinie|betriebsmittelkredit',
      fr: 'découvert|ligne de crédit|crédit de trésorerie',
      es: 'línea de crédito|póliza de crédito|descubierto',
      it: 'scoperto|\\bfido\\b|linea di credito',
      pt: 'descoberto|linha de crédito|conta corrente caucionada',
      nl: 'rekening-?courantkrediet|kredietfaciliteit',
      sv: 'checkkredit|checkräkningskredit',
      da: 'kassekredit',
      no: 'kassekreditt',
      fi: 'luottolimiitti|shekkitili',
      pl: 'linia kredytowa|kredyt w rachunku',
    },
  },
  interest: { kinds: ['otherExpense', 'expense'], words: INTEREST },
  accrued: { kinds: ['otherLiability', 'payable'], words: INTEREST },
  asset: {
    kinds: ['fixedAsset'],
    words: {
      en: 'equipment|vehicle|machine|boat|building|furniture|plant',
      de: 'maschine|fahrzeug|fuhrpark|einrichtung|gebäude|ausstattung|anlage',
      fr: 'matériel|véhicule|installation|construction|mobilier',
      es: 'maquinaria|vehículo|mobiliario|construccion|instalacion',
      it: 'impiant|macchinar|attrezzatur|automezz|fabbricat|mobili',
      pt: 'equipamento|viatura|edifício|mobiliário',
      nl: 'machine|inventaris|vervoermiddel|gebouw',
      sv: 'maskin|inventarier|fordon|byggnad',
      da: 'maskin|inventar|køretøj|driftsmid|bygning',
      no: 'maskin|inventar|kjøretøy|bygning',
      fi: 'koneet|kalusto|rakennu',
      pl: 'maszyn|urządze|środki transport|budynk',
    },
    not: 'accumulated|depreciation|fondo amm|kumuliert|abschreibung|amorti|ammorta|acumulad|afschrijving|skrivning|umorzen|poisto',
  },
  accumulated: {
    kinds: ['fixedAsset'],
    words: {
      ...DEPRECIATION,
      en: `accumulated|allowance|written off|${DEPRECIATION.en}`,
      de: `kumuliert|wertberichtigung|${DEPRECIATION.de}`,
      it: `fondo amm|${DEPRECIATION.it}`,
      es: `acumulad|${DEPRECIATION.es}`,
    },
  },
  depreciation: { kinds: COSTS, words: DEPRECIATION },
  gain: {
    kinds: ['otherIncome', 'otherExpense'],
    words: {
      en: '\\bgain|\\bloss(es)? on|dispos|\\bsold\\b|sale of|profit on',
      de: 'anlagenabgang|anlagenabgäng|veräußerung',
      fr: 'cession|plus-value|moins-value',
      es: 'enajenaci|venta de inmovilizado|plusvalía|minusvalía',
      it: 'plusvalenz|minusvalenz|alienazion',
      pt: 'alienaç|mais-valia|menos-valia',
      nl: 'boekwinst|boekverlies|verkoop vaste activa',
      sv: 'avyttring|realisations',
      da: 'avance|tab ved salg|salg af anlæg',
      no: 'avgang anlegg|salg av anlegg',
      fi: 'luovutusvoit|luovutustappio',
      pl: 'zbyci|sprzedaż środków',
    },
  },
  prepaid: {
    kinds: ['otherAsset'],
    words: {
      en: 'prepaid|prepayment|in advance|deferred',
      de: 'rechnungsabgrenzung|vorausbezahlt|vorausgezahlt|transitorische aktiv',
      fr: 'constatées? d.avance|payées? d.avance',
      es: 'anticipad',
      it: 'risconti',
      pt: 'diferimento|gastos a reconhecer',
      nl: 'vooruitbetaald|overlopende activa',
      sv: 'förutbetal',
      da: 'forudbetal|periodeafgræns',
      no: 'forskuddsbetal',
      fi: 'siirtosaami',
      pl: 'rozliczenia międzyokresowe',
    },
  },
  deferred: {
    kinds: ['otherLiability'],
    words: {
      en: 'deferred|in advance|unearned|deposit',
      de: 'rechnungsabgrenzung|erhaltene anzahlung|anzahlungen von|transitorische passiv',
      fr: 'constatés? d.avance|avances? reçues?|acomptes? reçus?',
      es: 'anticipad|anticipos de clientes',
      it: 'risconti|acconti',
      pt: 'diferimento|rendimentos a reconhecer|adiantamentos de clientes',
      nl: 'vooruitontvangen|overlopende passiva',
      sv: 'förskott från|förutbetalda intäkter',
      da: 'forudfaktur|modtagne forudbetal',
      no: 'forskudd fra',
      fi: 'saadut ennakot|siirtovel',
      pl: 'przychody przyszłych|zaliczki otrzymane',
    },
  },
  tax: { kinds: ['otherExpense', 'expense'], words: INCOME_TAX },
  taxOwed: { kinds: ['taxPayable', 'otherLiability', 'otherAsset'], words: INCOME_TAX },
  salesTax: {
    kinds: ['taxPayable'],
    words: {
      en: '\\bvat\\b|sales tax|\\bgst\\b|value.added',
      de: 'umsatzsteuer|mehrwertsteuer|\\bmwst|\\bust\\b|vorsteuer',
      fr: '\\btva\\b',
      es: '\\biva\\b',
      it: '\\biva\\b',
      pt: '\\biva\\b',
      nl: '\\bbtw\\b|omzetbelasting',
      sv: '\\bmoms\\b|mervärdesskatt',
      da: '\\bmoms\\b',
      no: '\\bmva\\b|merverdiavgift',
      fi: '\\balv\\b|arvonlisävero',
      pl: '\\bvat\\b',
    },
  },
  badDebt: {
    kinds: COSTS,
    words: {
      en: 'bad debt|doubtful|uncollect|credit loss',
      de: 'forderungsausf|forderungsverlust|debitorenverlust',
      fr: 'créances (irrécouvrables|douteuses)|pertes sur créances',
      es: 'incobrable|insolvencia',
      it: 'perdite su crediti|inesigibil',
      pt: 'incobráve|dívidas de cobrança',
      nl: 'oninbare|dubieuze',
      sv: 'kundförlust',
      da: 'tab på debitor',
      no: 'tap på (fordring|krav)',
      fi: 'luottotappio',
      pl: 'nieściągaln',
    },
  },
  equity: {
    kinds: ['equity'],
    words: {
      en: 'share|capital|contribution|drawing',
      de: 'kapital|einlage|entnahme',
      fr: 'capital|apport',
      es: 'capital|aportaci',
      it: 'capitale|versament',
      pt: 'capital|prestaç',
      nl: 'kapitaal|storting|opname',
      sv: 'kapital|insättning|uttag',
      da: 'kapital|indskud|hævning',
      no: 'kapital|innskudd|uttak',
      fi: 'pääoma',
      pl: 'kapitał',
    },
  },
};

type Read = { readonly kinds: ReadonlySet<AccountKind>; readonly words: RegExp; readonly not: RegExp | null };
const reads = new Map<Nature, Read>();
function readOf(nature: Nature): Read {
  let own = reads.get(nature);
  if (!own) {
    const { kinds, words, not } = TABLE[nature];
    const any = (text: string) => new RegExp(text.replaceAll('\\b', EDGE), 'iu');
    own = {
      kinds: new Set(kinds),
      words: any(Object.values(words).join('|')),
      not: not === undefined ? null : any(not),
    };
    reads.set(nature, own);
  }
  return own;
}
/** The edge of a word in any script: `\b` knows letters without marks alone. */
const EDGE = '(?:(?<![\\p{L}\\p{N}])(?=[\\p{L}\\p{N}])|(?<=[\\p{L}\\p{N}])(?![\\p{L}\\p{N}]))';

/** The kinds of account that may be of a nature. */
export const kindsOf = (nature: Nature): readonly AccountKind[] => TABLE[nature].kinds;

/** Whether a name (of an account, or of its group) says that it is of a nature. */
export function namesNature(name: string, nature: Nature): boolean {
  const { words, not } = readOf(nature);
  const plain = name.normalize('NFC');
  return words.test(plain) && !not?.test(plain);
}

const known = new WeakMap<Account, Map<Nature, boolean>>();

/** Whether an account is of a nature: as it was said, else by its kind and name. */
export function hasNature(account: Account, nature: Nature): boolean {
  if (account.nature !== undefined) return account.nature === nature;
  let own = known.get(account);
  if (!own) known.set(account, (own = new Map()));
  let is = own.get(nature);
  if (is === undefined)
    own.set(nature, (is = readOf(nature).kinds.has(account.kind) && namesNature(account.name, nature)));
  return is;
}

/** What an account is taken for by its name: the first nature that it tells; null where it tells none. */
export const natureByName = (account: Account): Nature | null =>
  NATURES.find((n) => readOf(n).kinds.has(account.kind) && namesNature(account.name, n)) ?? null;
