import { randomBytes, scrypt } from 'node:crypto'
import { parseArgs, promisify } from 'node:util'
import { openStore } from '../server/db/database'
import { openServerStore } from '../server/db/server-store'
import { seedStudio } from '../server/db/seed-studio'
import { isEmpty } from '../server/repositories/staff'

/** A scrypt hash in the form the server's own hasher reads (PHC string, as @adonisjs/hash writes it). */
async function hash(password: string): Promise<string> {
  const salt = randomBytes(16)
  const [cost, block, parallel] = [16384, 8, 1]
  const key = (await promisify(scrypt)(password, salt, 64)) as Buffer
  const b64 = (bytes: Buffer) => bytes.toString('base64').replace(/=+$/, '')
  return `$scrypt$n=${cost},r=${block},p=${parallel}$${b64(salt)}$${b64(key)}`
}

const { values } = parseArgs({
  options: {
    clients: { type: 'string', default: '1000' },
    checkins: { type: 'string', default: '60' },
    data: { type: 'string', default: '.data/large' },
  },
})
const size = { clients: Number(values.clients), checkins: Number(values.checkins) }
if (!Object.values(size).every((count) => Number.isInteger(count) && count > 0 && count <= 100_000)) {
  console.error('Please give --clients and --checkins as whole numbers above zero.')
  process.exit(1)
}
const url = process.env.DATABASE_URL
const store = url ? await openServerStore(url) : await openStore(values.data)
const db = store.database
if (!(await isEmpty(db))) {
  console.error(`There is a studio in ${url ? 'that database' : values.data} already. Give another one.`)
  process.exit(1)
}
const began = performance.now()
const { readings } = await seedStudio(store, size, {
  hash,
  now: new Date(),
  seed: 20261125,
  progress: (done) => process.stderr.write(`\r${done} of ${size.clients} clients`),
})
await store.close()
console.log(
  `\n${size.clients} clients, ${size.clients * size.checkins} check-ins, ${readings} readings in ${((performance.now() - began) / 1000).toFixed(1)} s. ${url ? '' : `Start it with: DATA_DIR=${values.data} npm start`}`,
)
