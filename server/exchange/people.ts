import { eq } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { sameName, type CellProblem, type IncomingClient, type IncomingRow } from '../../exchange/incoming'
import type { Queryable } from '../db/database'
import { client } from '../db/schema'

/** Somebody of a file: who they are here, or are to become. */
export interface Matched {
  id: string
  isNew: boolean
  name: string
  sex: 'female' | 'male'
  birthDate: string
  heightCm: number | null
  /** Where they were first named. */
  line: number
}

/** Places of the columns a problem of somebody stands at, where the file has them. */
export type Places = Partial<Record<'client' | 'sex' | 'birth-date', number>>

interface Here {
  id: string
  name: string
  sex: 'female' | 'male'
  birthDate: string
}

/** Who the people of a file are: those who are here by name, and those who are to be added. */
export class People {
  private readonly here = new Map<string, Here[]>()
  private readonly found = new Map<string, Matched | null>()

  private constructor(private readonly places: Places) {}

  static async of(db: Queryable, studioId: string, places: Places = {}): Promise<People> {
    const people = new People(places)
    const rows = await db
      .select({ id: client.id, name: client.name, sex: client.sex, birthDate: client.birthDate })
      .from(client)
      .where(eq(client.studioId, studioId))
    for (const row of rows) {
      const key = sameName(row.name)
      people.here.set(key, [...(people.here.get(key) ?? []), row])
    }
    return people
  }

  private wrong(line: number, where: keyof Places, message: string): CellProblem {
    return { line, column: this.places[where] ?? this.places.client ?? null, message }
  }

  /** Somebody who is here, by name and, where the file says it, birth date. */
  private amongHere({ name, sex, birthDate }: IncomingClient, line: number): Here | CellProblem | null {
    const named = this.here.get(sameName(name)) ?? []
    if (named.length === 0) return null
    const born = birthDate ? named.filter((one) => one.birthDate === birthDate) : named
    const [one, second] = born
    if (!one)
      return this.wrong(
        line,
        'birth-date',
        `${name} is a client here with another birth date (${named[0]?.birthDate}): put it right, or write the name so that it tells two people apart.`,
      )
    if (second)
      return this.wrong(line, 'client', `Two clients are called ${name}: a column of birth dates tells them apart.`)
    if (sex && sex !== one.sex) return this.wrong(line, 'sex', `${name} is on record here as ${one.sex}.`)
    return one
  }

  private contradiction(known: Matched, { sex, birthDate }: IncomingClient, line: number): CellProblem | null {
    if (birthDate && birthDate !== known.birthDate)
      return this.wrong(line, 'birth-date', `${known.name} has another birth date in line ${known.line}.`)
    if (sex && sex !== known.sex) return this.wrong(line, 'sex', `${known.name} has another sex in line ${known.line}.`)
    return null
  }

  /** Whom a row is about, or what is wrong; null where it was said before. */
  match({ client: one, line }: IncomingRow): Matched | CellProblem | null {
    const key = sameName(one.name)
    const known = this.found.get(key)
    if (known === null) return null
    if (known) {
      const problem = this.contradiction(known, one, line)
      if (!problem && one.heightCm !== null && known.isNew) known.heightCm = one.heightCm
      return problem ?? known
    }
    const here = this.amongHere(one, line)
    if (here && 'message' in here) {
      this.found.set(key, null)
      return here
    }
    if (!here && (!one.sex || !one.birthDate)) {
      this.found.set(key, null)
      return this.wrong(
        line,
        'client',
        `${one.name} is no client here yet: ${!one.sex && !one.birthDate ? 'sex and birth date are' : !one.sex ? 'the sex is' : 'the birth date is'} needed to add them.`,
      )
    }
    const matched: Matched = here
      ? { ...here, isNew: false, heightCm: null, line }
      : {
          id: uuid(),
          isNew: true,
          name: one.name,
          sex: one.sex ?? 'female',
          birthDate: one.birthDate ?? '',
          heightCm: one.heightCm,
          line,
        }
    this.found.set(key, matched)
    return matched
  }

  /** Everybody the file names and who could be told. */
  all(): Matched[] {
    return [...this.found.values()].filter((one) => one !== null)
  }
}
