/** A number as a whole number of its last decimal; null when it cannot be read or is finer. */
export function readScaled(text: string, decimals: number): { readonly value: number | null } | null {
  const t = text
    .trim()
    .replace('−', '-')
    .replace(/(?<=\d)[\s,](?=\d{3}\b)/g, '');
  if (t === '') return { value: null };
  const m = /^(-?)(\d{0,12})(?:\.(\d*))?$/.exec(t);
  if (!m || (!m[2] && !m[3]) || (m[3] ?? '').replace(/0+$/, '').length > decimals) return null;
  const digits = (m[2] || '0') + (m[3] ?? '').slice(0, decimals).padEnd(decimals, '0');
  return { value: Number(digits) * (m[1] ? -1 : 1) || 0 };
}
