/** Normal quantile of a two-sided 95 %. */
export const Z_95 = 1.96
