/** npm run bench:truth: the promise tried in every world, how soon a change is told, and what becomes of it. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('bench/truth.ts'))
