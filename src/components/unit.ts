import { createContext } from 'react';

/** In what the figures are that stand beneath: "in thousands of USD". Empty where they are what they seem. */
export const UnitContext = createContext('');

/** The locale of the open book: counts are written as it writes them. */
export const LocaleContext = createContext('en-GB');
