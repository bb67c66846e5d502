import { subDays } from 'date-fns'
import { sql } from 'drizzle-orm'
import { localDay } from '../../core/calendar'
import { seededRandom, simulateVisits, type Random } from '../../core/simulate'
import { PROTOCOLS, type ProtocolId } from '../../core/protocols'
import type { Store } from './database'
import { DEMO_CONDITIONS, DEMO_PASSWORD } from './demo-people'
import { caliper, staff, studio } from './schema'

/** How large a studio to make. */
export interface StudioSize {
  clients: number
  checkins: number
}

/** Sets in turn, so that a check-in holds about twenty readings. */
const SETS: readonly ProtocolId[] = ['laboratory-7', 'kinanthropometry-8', 'laboratory-7-tape']
const FIRST_NAMES = ['Aila', 'Bram', 'Cato', 'Dina', 'Eske', 'Finn', 'Greta', 'Hanno', 'Ida', 'Joris', 'Kaja', 'Levin']
const LAST_NAMES = [
  'Reed',
  'Alder',
  'Heron',
  'Marsh',
  'Willow',
  'Tarn',
  'Sedge',
  'Brook',
  'Fen',
  'Otter',
  'Rush',
  'Weir',
]
const GIRTHS = { waist: 82, abdomen: 86, hip: 99, 'mid-thigh-girth': 55, 'calf-girth': 37, 'arm-relaxed': 30 }
const TECHNICAL_ERROR = 0.035
const DAYS_BETWEEN = 14
/** Clients copied into the database at once. */
const BATCH = 50

type Cell = string | number | null

/** One row of comma-separated values: text quoted, null empty. */
function row(cells: readonly Cell[]): string {
  return cells.map((cell) => (typeof cell === 'string' ? `"${cell.replaceAll('"', '""')}"` : (cell ?? ''))).join(',')
}

interface Rows {
  clients: string[]
  checkins: string[]
  readings: string[]
}

function addClient(
  rows: Rows,
  random: Random,
  i: number,
  about: { studioId: string; staffIds: string[]; caliperId: string; checkins: number; now: Date },
) {
  const { studioId, staffIds, caliperId, checkins, now } = about
  const clientId = random.uuid()
  const sex = i % 2 === 0 ? 'female' : 'male'
  const name = `${FIRST_NAMES[i % FIRST_NAMES.length]} ${LAST_NAMES[Math.floor(i / FIRST_NAMES.length) % LAST_NAMES.length]} ${i + 1}`
  const first = subDays(now, checkins * DAYS_BETWEEN).toISOString()
  rows.clients.push(
    row([clientId, studioId, name, sex, `${1960 + (i % 45)}-04-12`, 160 + (i % 30), first.slice(0, 10), first]),
  )
  const protocolId = SETS[i % SETS.length] ?? 'laboratory-7'
  const weight = 58 + (i % 40)
  const sum = 70 + (i % 90)
  const staffId = staffIds[i % staffIds.length] ?? ''
  const visits = simulateVisits(random, {
    course: {
      sex,
      sumMm: { first: sum, last: sum * (0.85 + 0.3 * random.next()) },
      weightKg: { first: weight, last: weight * (0.95 + 0.1 * random.next()) },
      girthsCm: GIRTHS,
      wave: 0.02,
    },
    protocol: PROTOCOLS[protocolId],
    technicalError: TECHNICAL_ERROR,
    starts: Array.from({ length: checkins }, (_, n) =>
      subDays(now, (checkins - n) * DAYS_BETWEEN - (i % DAYS_BETWEEN)),
    ),
  })
  for (const { startedAt, finishedAt, readings } of visits) {
    const id = random.uuid()
    const conditions = JSON.stringify(DEMO_CONDITIONS)
    rows.checkins.push(
      row([
        id,
        clientId,
        protocolId,
        'right',
        staffId,
        staffId,
        caliperId,
        conditions,
        startedAt,
        localDay(startedAt, 'UTC'),
        finishedAt,
      ]),
    )
    for (const fact of readings) {
      rows.readings.push(
        row([fact.id, id, fact.site, fact.round, fact.value, fact.unit, fact.takenAt, staffId, fact.source]),
      )
    }
  }
}

/**
 * Fills an empty database with a large invented studio: for benchmarks and for trying the product at its full size.
 * @param hash hashes the password of its lead coach and coaches
 */
export async function seedStudio(
  { database: db, copy }: Pick<Store, 'database' | 'copy'>,
  { clients, checkins }: StudioSize,
  settings: { hash: (password: string) => Promise<string>; now: Date; seed: number; progress?: (done: number) => void },
): Promise<{ studioId: string; staffIds: string[]; readings: number }> {
  const { hash, now, seed, progress } = settings
  const random = seededRandom(seed)
  const studioId = random.uuid()
  const passwordHash = await hash(DEMO_PASSWORD)
  const people = ['Runa Bexley', 'Ivo Tarn', 'Asta Merl'].map((name, i) => ({
    id: random.uuid(),
    studioId,
    name,
    email: `${name.split(' ')[0]?.toLowerCase()}@reedwater.example`,
    passwordHash,
    role: i === 0 ? ('lead' as const) : ('coach' as const),
  }))
  const caliperId = random.uuid()
  await db.insert(studio).values({ id: studioId, name: 'Reedwater Rowing Club, all boats' })
  await db.insert(staff).values(people)
  await db.insert(caliper).values({ id: caliperId, name: 'Steel caliper, bench', studioId })
  const staffIds = people.map(({ id }) => id)
  let readings = 0
  for (let start = 0; start < clients; start += BATCH) {
    const rows: Rows = { clients: [], checkins: [], readings: [] }
    for (let i = start; i < Math.min(clients, start + BATCH); i += 1) {
      addClient(rows, random, i, { studioId, staffIds, caliperId, checkins, now })
    }
    await copy('client', 'id,studio_id,name,sex,birth_date,height_cm,consent_on,created_at', rows.clients)
    await copy(
      'checkin',
      'id,client_id,protocol_id,side,started_by,assessor_id,caliper_id,conditions,started_at,day,finished_at',
      rows.checkins,
    )
    await copy('reading', 'id,checkin_id,site,round,value,unit,taken_at,taken_by,source', rows.readings)
    readings += rows.readings.length
    progress?.(Math.min(clients, start + BATCH))
  }
  await db.execute(sql`analyze`)
  return { studioId, staffIds, readings }
}
