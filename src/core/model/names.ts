/** Names that someone typed are the same whatever their capitals and the spaces around them: what they are looked up by. */
export const nameKey = (name: string): string => name.trim().toLowerCase();

export const sameName = (a: string, b: string): boolean => nameKey(a) === nameKey(b);
