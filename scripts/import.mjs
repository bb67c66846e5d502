/** npm run import -- ...: cli/import.ts on the data folder, or on the database DATABASE_URL names. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/import.ts'))
