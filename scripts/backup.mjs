/** npm run backup -- ...: cli/backup.ts on the data folder, or on the database DATABASE_URL names. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/backup.ts'))
