/** npm run seal -- ...: cli/seal.ts, which seals photographs kept before there was a key, or under an earlier one. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/seal.ts'))
