/** "A", "B" … "AA" as spreadsheets name their columns, from 1. */
export function columnLetters(n: number): string {
  let out = '';
  for (let rest = n; rest > 0; rest = Math.floor((rest - 1) / 26))
    out = String.fromCharCode(65 + ((rest - 1) % 26)) + out;
  return out;
}
