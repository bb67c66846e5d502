/** npm run bench: measures the core and prints percentiles and ratios. No figure here is a test. */
import { bundled } from './lib/bundle.mjs'
import { measuringBundle } from './lib/bundle-size.mjs'

await import(await bundled('bench/core.ts'))
await measuringBundle()
await import(await bundled('bench/studio.ts'))
