import { restoreTrial } from './restore-trial'

/** A process of its own: an embedded database computes on the thread it is opened on. Arguments: a backup, an empty folder. */
const [file = '', scratch = ''] = process.argv.slice(2)
process.stdout.write(JSON.stringify(await restoreTrial(file, scratch)))
