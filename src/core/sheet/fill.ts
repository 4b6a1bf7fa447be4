/** Each row of a block filled to the right with its first cell. */
export const fillRight = <T>(rows: readonly (readonly T[])[]): T[][] => rows.map((r) => r.map(() => r[0]!));
