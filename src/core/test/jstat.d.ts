declare module 'jstat' {
  export const jStat: {
    readonly triangular: { inv(share: number, low: number, high: number, peak: number): number };
  };
}
