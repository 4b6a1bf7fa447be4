import type { HandoutWords } from '@/core/handout';

/** What handouts say in tests. */
export const HANDOUT_WORDS: HandoutWords = {
  title: (round, h) => `${round.name} for ${h.to}`,
  cover: () => ['Fill in the tinted cells.', '=not a formula'],
  heads: {
    code: 'Code',
    line: 'Line',
    sense: 'Income or cost',
    target: 'Stay within',
    whole: 'For the year',
    spread: 'How it falls',
    total: 'Total',
    comment: 'Comment',
    note: 'Our note',
  },
  senses: ['Income', 'Cost'],
  spreads: ['Evenly', 'As last year', 'As the draft'],
  sheets: ['Please fill', 'Read me', 'Last year'],
  totals: ['Total income', 'Total costs', 'What is left'],
};
