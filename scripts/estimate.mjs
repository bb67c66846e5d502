/** npm run --silent estimate -- people.csv: every equation for every person, CSV in and out, streaming. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/estimate.ts'))
