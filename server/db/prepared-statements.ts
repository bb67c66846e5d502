import { parse, protocol, type PGlite, type QueryOptions, type Results } from '@electric-sql/pglite'

/** So many statements stay prepared; the one unused for longest makes room. Ours are some three hundred. */
const AT_MOST = 500
/** A longer statement brings many rows in and hardly comes again as it is. */
const LONGEST = 8_000
/** A prepared statement whose answer has another shape since a table was changed; one that is no more. */
const GONE_STALE = new Set(['0A000', '26000'])

type Message = Awaited<ReturnType<PGlite['execProtocolStream']>>[number]
type Parser = (value: string, type: number) => unknown
type Values = readonly unknown[]

interface Statement {
  name: string
  /** Types of its parameters, by their ids in the catalogue. */
  types: readonly number[]
  columns: readonly { name: string; dataTypeID: number }[]
}

/** What the database of a client is asked through: the calls of PGlite this needs. */
type Asked = Pick<PGlite, 'execProtocolStream' | 'parsers' | 'serializers'>

function joined(messages: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(messages.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const message of messages) {
    whole.set(message, at)
    at += message.length
  }
  return whole
}

const { serialize } = protocol
const { CommandCompleteMessage, DatabaseError, DataRowMessage, RowDescriptionMessage } = protocol.messages

/**
 * Asks the embedded database by statements that stay prepared: parsed and planned once, then bound, run and answered in
 * one exchange instead of six. The database holds this thread while it works, so that this is time of every request.
 */
export class PreparedStatements {
  private readonly known = new Map<string, Statement>()
  /** Names the database still holds for nobody: closed with the next one that is made. */
  private leaving: string[] = []
  private made = 0

  constructor(private readonly client: Asked) {}

  /** Whether a question can be asked this way: those that bring a file or name their own types cannot. */
  takes(text: string, options: QueryOptions | undefined): boolean {
    return text.length <= LONGEST && !options?.blob && !options?.paramTypes && !options?.serializers
  }

  /**
   * Asks, where nobody else is asking. Outside a transaction a statement gone stale is prepared anew and asked again.
   * @throws the database's own error, with the statement beside it
   */
  async ask<Row>(
    text: string,
    values: Values,
    options: QueryOptions | undefined,
    inTransaction: boolean,
  ): Promise<Results<Row>> {
    try {
      return await this.run<Row>(text, values, options)
    } catch (error) {
      if (!GONE_STALE.has((error as { code?: string }).code ?? '')) throw error
      this.drop(text)
      if (inTransaction) throw error
      return this.run<Row>(text, values, options)
    }
  }

  private async run<Row>(text: string, values: Values, options: QueryOptions | undefined): Promise<Results<Row>> {
    try {
      const statement = this.known.get(text) ?? (await this.prepare(text))
      // Last used last.
      this.known.delete(text)
      this.known.set(text, statement)
      const messages = await this.send([
        serialize.bind({ statement: statement.name, values: this.written(statement, values) }),
        serialize.execute({}),
        serialize.sync(),
      ])
      return this.read<Row>(statement, messages, options)
    } catch (error) {
      throw error instanceof DatabaseError
        ? Object.assign(error, { query: text, params: values, queryOptions: options })
        : error
    }
  }

  private send(messages: readonly Uint8Array[]): Promise<Message[]> {
    return this.client.execProtocolStream(joined(messages), { syncToFs: false })
  }

  private drop(text: string): void {
    const statement = this.known.get(text)
    if (statement) this.leaving.push(statement.name)
    this.known.delete(text)
  }

  private async prepare(text: string): Promise<Statement> {
    const name = `own${(this.made += 1)}`
    const [oldest] = this.known.keys()
    if (oldest !== undefined && this.known.size >= AT_MOST) this.drop(oldest)
    const leaving = this.leaving.splice(0)
    const messages = await this.send([
      ...leaving.map((one) => serialize.close({ type: 'S', name: one })),
      serialize.parse({ text, name }),
      serialize.describe({ type: 'S', name }),
      serialize.sync(),
    ])
    const described = messages.find((one) => one instanceof RowDescriptionMessage)
    const columns = (described?.fields ?? []).map(({ name: column, dataTypeID }) => ({ name: column, dataTypeID }))
    return { name, types: parse.parseDescribeStatementResults(messages), columns }
  }

  private written({ types }: Statement, values: Values): (string | null)[] {
    return values.map((value, i) => {
      if (value === null || value === undefined) return null
      const serializer = this.client.serializers[types[i] ?? 0]
      return serializer ? (serializer(value) as string) : String(value)
    })
  }

  private read<Row>(
    { columns }: Statement,
    messages: readonly Message[],
    options: QueryOptions | undefined,
  ): Results<Row> {
    const parsers = columns.map(
      ({ dataTypeID }) => (options?.parsers?.[dataTypeID] ?? this.client.parsers[dataTypeID]) as Parser | undefined,
    )
    const rows = messages.flatMap((one) => {
      if (!(one instanceof DataRowMessage)) return []
      const values = one.fields.map((value, i) => {
        const parser = parsers[i]
        return value === null || !parser ? value : parser(value, columns[i]?.dataTypeID ?? 0)
      })
      if (options?.rowMode === 'array') return [values]
      return [Object.fromEntries(values.map((value, i) => [columns[i]?.name, value]))]
    })
    const complete = messages.find((one) => one instanceof CommandCompleteMessage)
    const [command = ''] = complete?.text.split(' ') ?? []
    const count = Number.parseInt(complete?.text.split(' ').at(-1) ?? '', 10)
    const affectedRows = ['INSERT', 'UPDATE', 'DELETE', 'COPY', 'MERGE'].includes(command) ? count : 0
    return { rows: rows as Row[], fields: [...columns], affectedRows }
  }
}
