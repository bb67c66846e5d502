import pg from 'pg'

/** A statement as the server was asked, with values of one time. */
interface Asked {
  text: string
  values: unknown[]
  times: number
}

/** What a plan says about the reading of one table. */
interface PlanNode {
  'Node Type': string
  'Relation Name'?: string
  'Index Name'?: string
  'Actual Rows'?: number
  'Actual Loops'?: number
  'Rows Removed by Filter'?: number
  Plans?: PlanNode[]
}

/** A table read whole that holds more rows than this is told. */
const LARGE = 2_000

/** Statements asked of PostgreSQL by everybody in this process while `run` goes on, each once. */
export async function asked(run: () => Promise<unknown>): Promise<Asked[]> {
  const found = new Map<string, Asked>()
  const plain = pg.Client.prototype.query as (...given: unknown[]) => unknown
  pg.Client.prototype.query = function (this: pg.Client, ...given: unknown[]) {
    const [config, values] = given as [string | { text?: string; values?: unknown[] }, unknown]
    const text = typeof config === 'string' ? config : (config.text ?? '')
    const own = typeof config === 'object' && config.values ? config.values : values
    const known = found.get(text)
    if (known) known.times += 1
    else found.set(text, { text, values: Array.isArray(own) ? (own as unknown[]) : [], times: 1 })
    return plain.apply(this, given)
  } as typeof pg.Client.prototype.query
  try {
    await run()
  } finally {
    pg.Client.prototype.query = plain as typeof pg.Client.prototype.query
  }
  return [...found.values()].filter(({ text }) => /^\s*(select|with)/i.test(text))
}

function nodes(plan: PlanNode): PlanNode[] {
  return [plan, ...(plan.Plans ?? []).flatMap(nodes)]
}

/**
 * EXPLAIN (ANALYZE) of what `run` asks: how many statements, the slowest of them, and every table of more than two
 * thousand rows that one reads whole.
 */
export async function explained(url: string, name: string, run: () => Promise<unknown>): Promise<void> {
  const statements = await asked(run)
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  const whole: string[] = []
  const slowest = { ms: 0, text: '' }
  let total = 0
  try {
    for (const { text, values, times } of statements) {
      const { rows } = await client.query<{ 'QUERY PLAN': { Plan: PlanNode; 'Execution Time': number }[] }>(
        `explain (analyze, format json) ${text}`,
        values,
      )
      const [plan] = rows[0]?.['QUERY PLAN'] ?? []
      if (!plan) continue
      const ms = plan['Execution Time']
      total += ms * times
      if (ms > slowest.ms) Object.assign(slowest, { ms, text })
      for (const node of nodes(plan.Plan)) {
        const read = ((node['Actual Rows'] ?? 0) + (node['Rows Removed by Filter'] ?? 0)) * (node['Actual Loops'] ?? 1)
        if (node['Node Type'] === 'Seq Scan' && read > LARGE)
          whole.push(`${node['Relation Name'] ?? ''} (${read} rows, ${ms.toFixed(0)} ms): ${short(text)}`)
      }
    }
  } finally {
    await client.end()
  }
  console.log(`  ${name}: ${statements.length} statements, ${total.toFixed(1)} ms in the database`)
  console.log(`    slowest ${slowest.ms.toFixed(1)} ms: ${short(slowest.text)}`)
  for (const one of whole) console.log(`    whole: ${one}`)
  if (whole.length === 0) console.log('    every table of more than 2,000 rows by an index')
}

const short = (text: string) => text.replace(/\s+/g, ' ').slice(0, 160)
