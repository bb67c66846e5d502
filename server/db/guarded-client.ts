import { PGlite, type PGliteOptions } from '@electric-sql/pglite'

/** The database has ended and cannot be asked any more in this process. */
export class DatabaseGone extends Error {
  constructor() {
    super('The database has stopped. What was stored before is safe.')
  }
}

/**
 * The embedded database, with a guard before it: after a panic (a full disk under its log, say) it would answer nothing
 * and keep this process from ever doing anything else, so it is not asked again.
 */
export class GuardedClient extends PGlite {
  private gone = false
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

  private check(): void {
    if (this.gone) throw new DatabaseGone()
  }

  /** Every way of asking leads through here. */
  override execProtocolRawSync(...given: Parameters<PGlite['execProtocolRawSync']>) {
    this.check()
    return super.execProtocolRawSync(...given)
  }
}
