declare module 'jstat' {
  interface Distributions {
    studentt: { cdf(x: number, dof: number): number; inv(p: number, dof: number): number }
    noncentralt: { cdf(x: number, dof: number, ncp: number): number }
    chisquare: { inv(p: number, dof: number): number }
    centralF: { cdf(x: number, df1: number, df2: number): number; inv(p: number, df1: number, df2: number): number }
    normal: { cdf(x: number, mean: number, sd: number): number; inv(p: number, mean: number, sd: number): number }
    gammaln(x: number): number
  }
  /** A CommonJS module: Node gives its names by the default export only. */
  const all: { jStat: Distributions }
  export default all
  export const jStat: Distributions
}
