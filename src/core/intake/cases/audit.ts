/**
 * A small Standard Audit File for Tax. The elements are those of the OECD's schema (SAF-T 2.0) from memory, with a
 * namespace and the inner Amount of national variants.
 */
export const AUDIT_FILE = `<?xml version="1.0" encoding="UTF-8"?>
<n1:AuditFile xmlns:n1="urn:example:saft">
  <n1:Header><n1:AuditFileVersion>2.0</n1:AuditFileVersion>
    <n1:SelectionCriteria><n1:SelectionStartDate>2025-01-01</n1:SelectionStartDate></n1:SelectionCriteria>
  </n1:Header>
  <n1:MasterFiles>
    <n1:GeneralLedgerAccounts>
      <n1:Account><n1:AccountID>1000</n1:AccountID><n1:AccountDescription>Bank &amp; cash</n1:AccountDescription>
        <n1:AccountType>Asset</n1:AccountType><n1:OpeningDebitBalance>500.00</n1:OpeningDebitBalance></n1:Account>
      <n1:Account><n1:AccountID>3000</n1:AccountID><n1:AccountDescription>Equity</n1:AccountDescription>
        <n1:OpeningCreditBalance>500.00</n1:OpeningCreditBalance></n1:Account>
      <n1:Account><n1:AccountID>4000</n1:AccountID><n1:AccountDescription>Sales</n1:AccountDescription></n1:Account>
    </n1:GeneralLedgerAccounts>
    <n1:Customers><n1:Customer><n1:CustomerID>C1</n1:CustomerID><n1:Name>Ann Lee</n1:Name></n1:Customer></n1:Customers>
  </n1:MasterFiles>
  <n1:GeneralLedgerEntries>
    <n1:NumberOfEntries>1</n1:NumberOfEntries>
    <n1:TotalDebit>120.00</n1:TotalDebit>
    <n1:TotalCredit>120.00</n1:TotalCredit>
    <n1:Journal><n1:JournalID>S</n1:JournalID>
      <n1:Transaction><n1:TransactionID>T1</n1:TransactionID><n1:TransactionDate>2025-03-05</n1:TransactionDate>
        <n1:Description>Course</n1:Description>
        <n1:Line><n1:RecordID>1</n1:RecordID><n1:AccountID>1000</n1:AccountID>
          <n1:Analysis><n1:AnalysisType>DEPT</n1:AnalysisType><n1:AnalysisID>North</n1:AnalysisID></n1:Analysis>
          <n1:CustomerID>C1</n1:CustomerID>
          <n1:DebitAmount><n1:Amount>120.00</n1:Amount><n1:CurrencyCode>EUR</n1:CurrencyCode></n1:DebitAmount></n1:Line>
        <n1:Line><n1:RecordID>2</n1:RecordID><n1:AccountID>4000</n1:AccountID>
          <n1:CreditAmount><n1:Amount>120.00</n1:Amount></n1:CreditAmount></n1:Line>
      </n1:Transaction>
    </n1:Journal>
  </n1:GeneralLedgerEntries>
</n1:AuditFile>`;

/** Another national form: no namespace, amounts directly in their elements, debit and credit lines by name. */
export const PLAIN_AUDIT_FILE = `<AuditFile><Header/><MasterFiles><GeneralLedgerAccounts>
<Account><AccountID>11</AccountID><AccountDescription>Caixa</AccountDescription></Account>
<Account><AccountID>71</AccountID><AccountDescription>Vendas</AccountDescription></Account>
</GeneralLedgerAccounts></MasterFiles><GeneralLedgerEntries><TotalDebit>10.00</TotalDebit><TotalCredit>9.00</TotalCredit>
<Journal><Transaction><TransactionID>1</TransactionID><TransactionDate>2025-01-02</TransactionDate><Lines>
<DebitLine><AccountID>11</AccountID><DebitAmount>10.00</DebitAmount></DebitLine>
<CreditLine><AccountID>71</AccountID><CreditAmount>10.00</CreditAmount></CreditLine>
</Lines></Transaction></Journal></GeneralLedgerEntries></AuditFile>`;
