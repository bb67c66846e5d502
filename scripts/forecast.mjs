/** npm run --silent forecast -- people.csv: the dynamic model of body weight for many people. CSV in and out. */
import { bundled } from './lib/bundle.mjs'

await import(await bundled('cli/forecast.ts'))
