import { and, eq, gt, inArray, isNull, sql } from 'drizzle-orm'
import type { Day } from '../../core/calendar'
import { barredFrom, BARRED_WORDS } from '../../core/challenge'
import {
  challengeFindings,
  courseFindings,
  homeFindings,
  suspendedBy,
  type HomeAsk,
  type SafetyFacts,
  type Suspension,
} from '../../core/safety'
import type { LinkScope } from '../../shared/schemas/link'
import type { Queryable } from '../db/database'
import { challenge, challengeEntry, client, clientLink } from '../db/schema'
import { followed, refresh, type Listed } from './followed-clients'
import { safetyOn } from './kept-safety'
import type { InStudio } from './staff'

type Touched = Pick<Listed, 'id' | 'touchedAt'>

/** The gate's facts about a client on a day; null where there is no such client. */
export async function safetyFactsOf(
  db: Queryable,
  who: InStudio,
  clientId: string,
  today: Day,
): Promise<SafetyFacts | null> {
  const kept = await touchedOf(db, who, clientId)
  if (kept.length === 0) return null
  await refresh(db, who, kept)
  const own = followed(clientId)
  return own ? safetyOn(own.safety, today) : null
}

function touchedOf(db: Queryable, { studioId }: InStudio, clientId: string): Promise<Touched[]> {
  return db
    .select({ id: client.id, touchedAt: sql<string>`${client.touchedAt}::text` })
    .from(client)
    .where(and(eq(client.id, clientId), eq(client.studioId, studioId)))
}

/** Codes that speak against what a link asks for: it needs a reason that answers them. */
export function homeCodes(facts: SafetyFacts, scope: readonly LinkScope[]): string[] {
  const asked = scope.filter((one): one is HomeAsk => one !== 'take-home')
  return [...new Set(asked.flatMap((one) => homeFindings(facts, one).map(({ code }) => code)))]
}

/** What of a link's scope counts: all that nothing speaks against but what its reason answers. */
export function countedScope(
  facts: SafetyFacts,
  scope: readonly LinkScope[],
  reasonFor: readonly string[],
): LinkScope[] {
  return scope.filter((one) => homeCodes(facts, [one]).every((code) => reasonFor.includes(code)))
}

async function entriesOf(db: Queryable, ids: readonly string[]) {
  return db
    .select({ id: challengeEntry.id, clientId: challengeEntry.clientId, name: challenge.name })
    .from(challengeEntry)
    .innerJoin(challenge, eq(challenge.id, challengeEntry.challengeId))
    .where(and(inArray(challengeEntry.clientId, [...ids]), isNull(challengeEntry.leftAt), isNull(challenge.closedAt)))
}

async function linksOf(db: Queryable, ids: readonly string[]) {
  return db
    .select({
      id: clientLink.id,
      clientId: clientLink.clientId,
      scope: clientLink.scope,
      reasonFor: clientLink.reasonFor,
    })
    .from(clientLink)
    .where(
      and(
        inArray(clientLink.clientId, [...ids]),
        isNull(clientLink.revokedAt),
        // A link that has run out asks for nothing any more.
        gt(clientLink.expiresAt, new Date().toISOString()),
      ),
    )
}

/**
 * What stands and does not count, of these clients: a plan, an entry, a daily weight that a flag, an age or a weight has
 * come up against since it was agreed. It is worked out anew from the facts each time, so it can never be forgotten.
 */
export async function suspensionsOf(
  db: Queryable,
  who: InStudio,
  people: readonly Touched[],
  today: Day,
): Promise<Map<string, Suspension[]>> {
  await refresh(db, who, people)
  const found = new Map<string, Suspension[]>()
  const note = (clientId: string, one: Suspension) => found.set(clientId, [...(found.get(clientId) ?? []), one])
  const facts = new Map<string, SafetyFacts>()
  for (const { id } of people) {
    const own = followed(id)
    if (!own) continue
    const now = safetyOn(own.safety, today)
    facts.set(id, now)
    const { plan } = own.safety
    const why = plan && suspendedBy(courseFindings(now, plan.course), plan.then, plan.decided)
    if (plan && why)
      note(id, {
        about: 'plan',
        subjectId: plan.id,
        name: '',
        code: why.code,
        sentence: why.sentence,
        mayGoOn: why.outcome !== 'stop',
      })
  }
  const ids = [...facts.keys()]
  if (ids.length === 0) return found
  for (const entry of await entriesOf(db, ids)) {
    const now = facts.get(entry.clientId)
    const own = followed(entry.clientId)
    const barred = now && own && barredFrom(own.person, today, now)
    if (!barred) continue
    const code = challengeFindings(now)[0]?.code ?? 'neutral-wish'
    note(entry.clientId, {
      about: 'challenge',
      subjectId: entry.id,
      name: entry.name,
      code,
      sentence: BARRED_WORDS[barred],
      mayGoOn: false,
    })
  }
  for (const link of await linksOf(db, ids)) {
    const now = facts.get(link.clientId)
    if (!now || !link.scope.includes('weigh-ins')) continue
    const why = homeFindings(now, 'weigh-ins').find(({ code }) => !link.reasonFor.includes(code))
    if (why)
      note(link.clientId, {
        about: 'daily-weight',
        subjectId: link.id,
        name: '',
        code: why.code,
        sentence: why.sentence,
        mayGoOn: false,
      })
  }
  return found
}

/** The same of one client. */
export async function suspensionsOfClient(
  db: Queryable,
  who: InStudio,
  clientId: string,
  today: Day,
): Promise<Suspension[]> {
  const people = await touchedOf(db, who, clientId)
  return (await suspensionsOf(db, who, people, today)).get(clientId) ?? []
}
