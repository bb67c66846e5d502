/** npm run bench:truth: the promise of "real" tried in every world; CLIENTS=100 for a shorter run. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('bench/truth.ts'))
