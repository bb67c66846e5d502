declare module 'jstat' {
  export const jStat: {
    studentt: { cdf(x: number, dof: number): number; inv(p: number, dof: number): number }
    normal: { inv(p: number, mean: number, sd: number): number }
    gammaln(x: number): number
  }
}
