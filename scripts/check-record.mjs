/** npm run check-record -- ...: cli/check-record.ts on the data folder, or on the database DATABASE_URL names. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/check-record.ts'))
