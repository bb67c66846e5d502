import { restoreTrial } from './restore-trial'

/** A process of its own: an embedded database computes on the thread it is opened on. Arguments: a backup, an empty folder. */
const [file = '', scratch = ''] = process.argv.slice(2)
// The server that began it has ended: nobody waits for this any more.
process.stdin.once('close', () => process.exit(1)).resume()
const said = JSON.stringify(await restoreTrial(file, scratch))
process.stdout.write(said, () => process.exit(0))
