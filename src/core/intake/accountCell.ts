/** Code and name of an account out of one cell: "4100 – Repairs", "4100 Repairs", "Repairs (4100)", "Repairs". */
export function splitAccountCell(text: string): { readonly code: string; readonly name: string } {
  const t = text.trim();
  // No account is called so: it is not looked through for a code.
  if (t.length > 400) return { code: '', name: t };
  const lead = /^([A-Z]{0,3}\d[\d.\-/]*\d|\d)(?:\s*[-–—·:|]\s*|\s+)(\S.*)$/.exec(t);
  if (lead) return { code: lead[1]!, name: lead[2]!.trim() };
  const tail = /^(.*\S)\s*[([](\d{3,}[\d.-]*)[)\]]$/.exec(t);
  if (tail) return { code: tail[2]!, name: tail[1]! };
  return /^[A-Z]{0,2}\d{2,}[\d.-]*$/.test(t) ? { code: t, name: '' } : { code: '', name: t };
}

/** Names compared without case, marks or doubled spaces. */
export const nameKey = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKC')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
