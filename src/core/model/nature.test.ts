import { hasNature, NATURES, natureByName, newAccount, type AccountKind, type Nature } from '.';

const of = (name: string, kind: AccountKind) => newAccount('a', '', name, kind);

/**
 * Accounts of published charts, from memory: SKR 04 (DATEV, Germany), plan comptable général (ANC 2014-03, France), Plan General
 * de Contabilidad 2007 (Spain), piano dei conti after art. 2424 f. Codice civile (Italy), SNC (Portugal), RGS (Netherlands),
 * BAS (Sweden), NS 4102 (Norway), and names of common practice elsewhere.
 */
test.each<[Nature, AccountKind, string]>([
  ['wages', 'expense', 'Wages and salaries'],
  ['wages', 'expense', 'Gehälter'],
  ['wages', 'expense', 'Löhne'],
  ['wages', 'expense', 'Rémunérations du personnel'],
  ['wages', 'expense', 'Sueldos y salarios'],
  ['wages', 'expense', 'Salari e stipendi'],
  ['wages', 'expense', 'Remunerações do pessoal'],
  ['wages', 'expense', 'Lonen en salarissen'],
  ['wages', 'expense', 'Löner till kollektivanställda'],
  ['wages', 'expense', 'Lønn til ansatte'],
  ['wages', 'expense', 'Wynagrodzenia'],
  ['oncosts', 'expense', 'Employer pension contributions'],
  ['oncosts', 'expense', 'Gesetzliche soziale Aufwendungen'],
  ['oncosts', 'expense', 'Charges de sécurité sociale et de prévoyance'],
  ['oncosts', 'expense', 'Seguridad Social a cargo de la empresa'],
  ['oncosts', 'expense', 'Oneri sociali'],
  ['oncosts', 'expense', 'Sociale lasten'],
  ['oncosts', 'expense', 'Lagstadgade sociala avgifter'],
  ['oncosts', 'expense', 'Arbeidsgiveravgift'],
  ['interest', 'otherExpense', 'Loan interest'],
  ['interest', 'otherExpense', 'Zinsaufwendungen für kurzfristige Verbindlichkeiten'],
  ['interest', 'otherExpense', 'Charges d’intérêts'],
  ['interest', 'otherExpense', 'Intereses de deudas'],
  ['interest', 'otherExpense', 'Interessi passivi su mutui'],
  ['interest', 'otherExpense', 'Juros suportados'],
  ['interest', 'otherExpense', 'Rentelasten'],
  ['interest', 'otherExpense', 'Räntekostnader för långfristiga skulder'],
  ['interest', 'otherExpense', 'Rentekostnad'],
  ['interest', 'otherExpense', 'Odsetki od kredytów'],
  ['depreciation', 'expense', 'Depreciation'],
  ['depreciation', 'expense', 'Abschreibungen auf Sachanlagen'],
  ['depreciation', 'expense', 'Dotations aux amortissements'],
  ['depreciation', 'expense', 'Amortización del inmovilizado material'],
  ['depreciation', 'expense', 'Ammortamento impianti'],
  ['depreciation', 'expense', 'Gastos de depreciação: depreciações de ativos'],
  ['depreciation', 'expense', 'Afschrijvingen op inventaris'],
  ['depreciation', 'expense', 'Avskrivningar på inventarier'],
  ['depreciation', 'expense', 'Poistot koneista'],
  ['accumulated', 'fixedAsset', 'Less: accumulated depreciation'],
  ['accumulated', 'fixedAsset', 'Kumulierte Abschreibungen'],
  ['accumulated', 'fixedAsset', 'Amortissements des installations techniques'],
  ['accumulated', 'fixedAsset', 'Amortización acumulada del inmovilizado material'],
  ['accumulated', 'fixedAsset', 'Fondo amm.to impianti'],
  ['accumulated', 'fixedAsset', 'Ackumulerade avskrivningar på inventarier'],
  ['tax', 'otherExpense', 'Corporation tax'],
  ['tax', 'otherExpense', 'Körperschaftsteuer'],
  ['tax', 'otherExpense', 'Impôts sur les bénéfices'],
  ['tax', 'otherExpense', 'Impuesto sobre beneficios'],
  ['tax', 'otherExpense', 'Imposte sul reddito'],
  ['tax', 'otherExpense', 'Vennootschapsbelasting'],
  ['tax', 'otherExpense', 'Podatek dochodowy'],
  ['taxOwed', 'taxPayable', 'Income tax payable'],
  ['salesTax', 'taxPayable', 'VAT control'],
  ['salesTax', 'taxPayable', 'Umsatzsteuer 19 %'],
  ['salesTax', 'taxPayable', 'TVA collectée'],
  ['salesTax', 'taxPayable', 'Hacienda Pública, IVA repercutido'],
  ['salesTax', 'taxPayable', 'Utgående moms'],
  ['prepaid', 'otherAsset', 'Prepaid insurance'],
  ['prepaid', 'otherAsset', 'Charges constatées d’avance'],
  ['prepaid', 'otherAsset', 'Gastos anticipados'],
  ['prepaid', 'otherAsset', 'Övriga förutbetalda kostnader'],
  ['deferred', 'otherLiability', 'Unearned income'],
  ['deferred', 'otherLiability', 'Produits constatés d’avance'],
  ['badDebt', 'expense', 'Bad debts'],
  ['badDebt', 'expense', 'Pertes sur créances irrécouvrables'],
  ['badDebt', 'expense', 'Pérdidas de créditos comerciales incobrables'],
  ['badDebt', 'expense', 'Konstaterade kundförluster'],
  ['gain', 'otherIncome', 'Gain on sale of equipment'],
  ['gain', 'otherExpense', 'Minusvalenze'],
  ['loan', 'loan', 'Emprunts auprès des établissements de crédit'],
  ['accrued', 'otherLiability', 'Accrued interest'],
])('%s: %s “%s”', (nature, kind, name) => {
  expect(hasNature(of(name, kind), nature)).toBe(true);
  expect(natureByName(of(name, kind))).toBe(nature);
});

test.each<[Nature, AccountKind, string]>([
  ['wages', 'expense', 'Payroll tax'],
  ['wages', 'expense', 'Staff training'],
  ['wages', 'expense', 'Bank charges'],
  ['wages', 'expense', 'Repayable fees'],
  ['interest', 'income', 'Interest received'],
  ['interest', 'otherExpense', 'Rent of premises'],
  ['depreciation', 'fixedAsset', 'Accumulated depreciation'],
  ['asset', 'fixedAsset', 'Accumulated depreciation, vehicles'],
  ['tax', 'expense', 'Property tax'],
  ['salesTax', 'taxPayable', 'Private levy'],
])('not %s: %s “%s”', (nature, kind, name) => {
  expect(hasNature(of(name, kind), nature)).toBe(false);
});

test('what is said goes before the name, whatever it says', () => {
  const said = { ...of('Interest', 'otherExpense'), nature: 'tax' as const };
  expect(NATURES.filter((n) => hasNature(said, n))).toEqual(['tax']);
  expect(natureByName(said)).toBe('interest');
});

test('a name is the same however its letters with marks are made up', () => {
  expect(hasNature(of('Löhne'.normalize('NFD'), 'expense'), 'wages')).toBe(true);
});
