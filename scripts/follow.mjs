/** npm run --silent follow -- readings.csv: every check-in compared with the first, with the error learnt. CSV in and out. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/follow.ts'))
