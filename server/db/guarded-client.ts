import { PGlite, type PGliteOptions, type QueryOptions, type Results, type Transaction } from '@electric-sql/pglite'
import { PreparedStatements } from './prepared-statements'

/** The database has ended and cannot be asked any more in this process. */
export class DatabaseGone extends Error {
  constructor() {
    super('The database has stopped. What was stored before is safe.')
  }
}

/**
 * The embedded database, with a guard before it: after a panic (a full disk under its log, say) it would answer nothing
 * and keep this process from ever doing anything else, so it is not asked again. What is asked stays prepared.
 */
export class GuardedClient extends PGlite {
  private gone = false
  /** While somebody reads everything at one moment. */
  private held: Promise<void> | null = null
  private readonly statements = new PreparedStatements(this)
  private readonly onGone: ((reason: string) => void)[] = []

  constructor(options: PGliteOptions) {
    super({
      ...options,
      onStderr: (line) => {
        const panic = /\b(?:PANIC|FATAL):\s+(.*)|^(Aborted\(.*)/.exec(line)
        if (panic) this.die(panic[1] ?? panic[2] ?? 'panic')
        return options.onStderr?.(line) ?? true
      },
    })
  }

  /** Calls back once when the database has ended by itself. */
  whenGone(tell: (reason: string) => void): void {
    this.onGone.push(tell)
  }

  private die(reason: string): void {
    if (this.gone) return
    this.gone = true
    for (const tell of this.onGone) tell(reason)
  }

  override async query<Row>(text: string, values: unknown[] = [], options?: QueryOptions): Promise<Results<Row>> {
    // While it starts it asks for itself.
    if (!this.ready || !this.statements.takes(text, options)) return super.query<Row>(text, values, options)
    return this._runExclusiveTransaction(() =>
      this._runExclusiveQuery(async () => {
        const results = await this.statements.ask<Row>(text, values, options, false)
        await this.syncToFs()
        return results
      }),
    )
  }

  /**
   * Does something while no transaction begins; questions are answered. One that runs already ends first, because every
   * question waits for it.
   */
  async holdChanges<Result>(work: () => Promise<Result>): Promise<Result> {
    while (this.held) await this.held
    let release = () => {}
    this.held = new Promise((done) => (release = done))
    try {
      return await work()
    } finally {
      this.held = null
      release()
    }
  }

  override async transaction<Result>(work: (tx: Transaction) => Promise<Result>): Promise<Result> {
    while (this.held) await this.held
    return super.transaction((tx) => {
      const query = <Row>(text: string, values: unknown[] = [], options?: QueryOptions): Promise<Results<Row>> => {
        if (tx.closed || !this.statements.takes(text, options)) return tx.query<Row>(text, values, options)
        return this._runExclusiveQuery(() => this.statements.ask<Row>(text, values, options, true))
      }
      return work(Object.assign(Object.create(tx) as Transaction, { query }))
    })
  }

  /**
   * Rewrites every table with text that people typed, and drops the log written before: what was deleted is in none of the
   * files any more. Tables of readings hold ids and numbers; they are left as they are.
   */
  async scrub(): Promise<void> {
    const { rows } = await this.query<{ name: string }>(
      `select distinct c.table_name as name from information_schema.columns c
        join information_schema.tables t using (table_schema, table_name)
        where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.data_type in ('text', 'jsonb')
          and c.table_name not in ('reading', 'audit', 'audit_chain')`,
    )
    for (const { name } of rows) await this.exec(`vacuum full "${name}"`)
    await this.exec('vacuum full pg_catalog.pg_statistic')
    // Segments of the log are removed instead of used again; the one in use is left behind twice.
    await this.exec('set wal_recycle = off')
    for (let turn = 0; turn < 2; turn += 1) {
      await this.exec('select pg_switch_wal()')
      await this.exec('checkpoint')
    }
    await this.exec('reset wal_recycle')
  }

  private check(): void {
    if (this.gone) throw new DatabaseGone()
  }

  /** Every way of asking leads through here. */
  override execProtocolRawSync(...given: Parameters<PGlite['execProtocolRawSync']>) {
    this.check()
    return super.execProtocolRawSync(...given)
  }
}
