const orders = new Map<string, 'dmy' | 'mdy'>();

/** In which order a locale writes day and month, as the runtime's CLDR data has it: what a date that can be read both ways is. */
export function dateOrderOf(locale: string): 'dmy' | 'mdy' {
  let known = orders.get(locale);
  if (known) return known;
  const parts = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric', year: 'numeric' });
  const order = parts.formatToParts(Date.UTC(2026, 0, 31)).map((p) => p.type);
  // Where the year comes first nothing can be read both ways; what comes from elsewhere has the day first.
  known = order.indexOf('month') < order.indexOf('day') && order.indexOf('year') > 0 ? 'mdy' : 'dmy';
  orders.set(locale, known);
  return known;
}
