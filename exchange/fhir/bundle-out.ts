import { isFold, SITES, type SiteId } from '../../core/sites'
import { codingsOf, SYSTEM, UCUM, type Measure, type Unit } from './codes'

/** Somebody, as the bundle has them. */
export interface BundlePerson {
  id: string
  name: string
  sex: 'female' | 'male'
  birthDate: string
  /** As on record; null: not known. */
  heightCm: number | null
}

/** A check-in, as the bundle has it: readings as facts, and what follows from them. */
export interface BundleVisit {
  id: string
  clientId: string
  at: string
  setId: string
  setName: string
  assessor: string | null
  side: 'right' | 'left'
  note: string
  readings: {
    id: string
    site: Measure
    round: number
    value: number
    unit: Unit
    struck: boolean
    method: string | null
    note: string
  }[]
  /** Site values as reconciled, in mm, cm and kg. */
  values: Partial<Record<Measure, number>>
  bmi: number | null
  percent: { value: number; equation: string } | null
}

export interface BundleWeight {
  id: string
  clientId: string
  day: string
  value: number
  unit: 'kg' | 'lb'
}

/** A resource of FHIR R4 as it stands in the bundle. */
export type Resource = { resourceType: string; id: string } & Record<string, unknown>

const categoryOf = (measure: Measure | 'bmi' | 'percent') => ({
  category: [
    { coding: [{ system: SYSTEM.category, code: measure in SITES || measure === 'percent' ? 'exam' : 'vital-signs' }] },
  ],
})
const quantity = (value: number, unit: Unit) => ({ value, unit, system: SYSTEM.ucum, code: UCUM[unit] })
const patient = (id: string) => ({ reference: `urn:uuid:${id}` })

/** Somebody, and their height as it is on record: an observation of no day. */
export function personResources({ id, name, sex, birthDate, heightCm }: BundlePerson): Resource[] {
  const person = { resourceType: 'Patient', id, name: [{ text: name }], gender: sex, birthDate }
  if (heightCm === null) return [person]
  return [
    person,
    {
      resourceType: 'Observation',
      id: about(id, 'height'),
      status: 'final',
      ...categoryOf('height'),
      code: { coding: codingsOf('height'), text: 'height, as on record' },
      subject: patient(id),
      valueQuantity: quantity(heightCm, 'cm'),
    },
  ]
}

const ownUnit = (site: Measure): Unit => (site === 'weight' ? 'kg' : site !== 'height' && isFold(site) ? 'mm' : 'cm')

/** An id of ours for one thing about another: the same facts give the same bundle. */
const about = (id: string, what: string) =>
  `${id.slice(0, 20)}${[...what]
    .reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) >>> 0, 7)
    .toString(16)
    .padStart(8, '0')}${id.slice(28)}`

function siteObservation(visit: BundleVisit, site: Measure): Resource {
  const own = visit.readings.filter((one) => one.site === site)
  const way = own.find(({ method }) => method)?.method ?? null
  const value = visit.values[site]
  return {
    resourceType: 'Observation',
    id: about(visit.id, site),
    identifier: [{ system: SYSTEM.checkin, value: visit.id }],
    status: 'final',
    ...categoryOf(site),
    code: { coding: codingsOf(site), text: site in SITES ? SITES[site as SiteId].name : site },
    subject: patient(visit.clientId),
    effectiveDateTime: visit.at,
    ...(site in SITES ? { bodySite: { text: `${SITES[site as SiteId].where} (${visit.side} side)` } } : {}),
    ...(way ? { method: { coding: [{ system: SYSTEM.way, code: way }], text: way } } : {}),
    ...(value === undefined
      ? { dataAbsentReason: { text: 'Every reading was struck.' } }
      : { valueQuantity: quantity(Number(value.toFixed(4)), ownUnit(site)) }),
    component: own.map(({ round, value: read, unit, struck, note }) => ({
      ...(note ? { extension: [{ url: SYSTEM.note, valueString: note }] } : {}),
      code: {
        coding: [{ system: SYSTEM.reading, code: struck ? `struck-${round}` : `round-${round}` }],
        text: `Reading ${round}${struck ? ', struck' : ''}`,
      },
      valueQuantity: quantity(read, unit),
    })),
  }
}

function derived(visit: BundleVisit, measure: 'bmi' | 'percent', value: number, method: string): Resource {
  return {
    resourceType: 'Observation',
    id: about(visit.id, measure),
    status: 'final',
    ...categoryOf(measure),
    code: { coding: codingsOf(measure), text: measure === 'bmi' ? 'Body mass index' : 'Body fat, percent' },
    subject: patient(visit.clientId),
    effectiveDateTime: visit.at,
    method: { text: method },
    valueQuantity:
      measure === 'bmi'
        ? { value: Number(value.toFixed(2)), unit: 'kg/m2', system: SYSTEM.ucum, code: 'kg/m2' }
        : { value: Number(value.toFixed(2)), unit: '%', system: SYSTEM.ucum, code: '%' },
    derivedFrom: [{ reference: `urn:uuid:${about(visit.id, 'panel')}` }],
  }
}

/** A check-in: a panel with an observation a site, readings as components, and what follows from them. */
export function visitResources(visit: BundleVisit): Resource[] {
  const sites = [...new Set(visit.readings.map(({ site }) => site))]
  const members = sites.map((site) => siteObservation(visit, site))
  const panel: Resource = {
    resourceType: 'Observation',
    id: about(visit.id, 'panel'),
    identifier: [{ system: SYSTEM.checkin, value: visit.id }],
    status: 'final',
    category: [{ coding: [{ system: SYSTEM.category, code: 'exam' }] }],
    code: { coding: [{ system: SYSTEM.panel, code: 'check-in' }], text: 'Check-in with caliper and tape' },
    subject: patient(visit.clientId),
    effectiveDateTime: visit.at,
    ...(visit.assessor ? { performer: [{ display: visit.assessor }] } : {}),
    method: { coding: [{ system: SYSTEM.set, code: visit.setId, display: visit.setName }], text: visit.setName },
    bodySite: { text: visit.side },
    ...(visit.note ? { note: [{ text: visit.note }] } : {}),
    hasMember: members.map(({ id }) => ({ reference: `urn:uuid:${id}` })),
  }
  return [
    panel,
    ...members,
    ...(visit.bmi === null ? [] : [derived(visit, 'bmi', visit.bmi, 'Weight over the square of height')]),
    ...(visit.percent ? [derived(visit, 'percent', visit.percent.value, visit.percent.equation)] : []),
  ]
}

/** A day's weight of the diary. */
export function weightResource({ id, clientId, day, value, unit }: BundleWeight): Resource {
  return {
    resourceType: 'Observation',
    id,
    status: 'final',
    ...categoryOf('weight'),
    code: { coding: codingsOf('weight'), text: 'weight' },
    subject: patient(clientId),
    effectiveDateTime: day,
    valueQuantity: quantity(value, unit),
  }
}

/** A bundle (collection) as text, an entry at a time. */
export async function* bundleText(resources: AsyncIterable<readonly Resource[]>): AsyncGenerator<Buffer> {
  yield Buffer.from('{"resourceType":"Bundle","type":"collection","entry":[')
  let first = true
  for await (const page of resources) {
    const text = page.map((resource) => JSON.stringify({ fullUrl: `urn:uuid:${resource.id}`, resource })).join(',\n')
    if (!text) continue
    yield Buffer.from(first ? `\n${text}` : `,\n${text}`)
    first = false
  }
  yield Buffer.from('\n]}\n')
}
