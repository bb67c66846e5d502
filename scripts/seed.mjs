/** npm run seed -- --clients 1000 --checkins 60 [--data .data/large]: a large invented studio in a folder of its own. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/seed.ts'))
