/** npm run bench:sync: what syncing the log to the disk costs: readings one by one and fifty at once, with and without. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('bench/sync.ts'))
