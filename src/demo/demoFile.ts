/* Where the demo book that ships stands, for the generator that writes it and the app that opens it. */

export const DEMO_FILE = '/demo/pellow-creek.tellan.json';

/** Stands for the book's id in the file; each book made from it gets its own. */
export const DEMO_ID = 'demo-0000000000000000';
