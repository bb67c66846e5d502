import fc from 'fast-check'

/** Seed of every property; `SEED=7 RUNS=5000 npx vitest run --project core` looks elsewhere and longer. */
const SEED = Number(process.env.SEED ?? 20261126)
const RUNS = process.env.RUNS === undefined ? {} : { numRuns: Number(process.env.RUNS) }

fc.configureGlobal({ seed: SEED, ...RUNS })
