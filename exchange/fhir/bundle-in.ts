import { createReadStream } from 'node:fs'
import { JSONParser } from '@streamparser/json'
import { z } from 'zod'
import { dayExists } from '../../core/calendar'
import { findProtocol } from '../../core/protocols'
import { WAY_IDS } from '../../core/sites'
import { lengthToCm } from '../../core/units'
import type { IncomingClient, IncomingReading, IncomingRow, Tell } from '../incoming'
import { readValue } from '../table/values'
import { measureOf, SYSTEM, unitOfUcum, type Measure } from './codes'
import { FhirRefused } from './refused'

const MOST = 2_000_000
const NO_BUNDLE = 'This is no FHIR bundle that can be read here: it has to be JSON of a Bundle with entries.'

const coding = z.object({ system: z.string().optional(), code: z.string().optional() })
const concept = z.object({ coding: z.array(coding).default([]), text: z.string().optional() })
const quantity = z.object({ value: z.number(), code: z.string().optional(), unit: z.string().optional() })
const resource = z.object({ resourceType: z.string() })

const patient = z.object({
  id: z.string().optional(),
  name: z
    .array(
      z.object({ text: z.string().optional(), family: z.string().optional(), given: z.array(z.string()).optional() }),
    )
    .default([]),
  gender: z.string().optional(),
  birthDate: z.string().optional(),
})

const observation = z.object({
  identifier: z.array(z.object({ system: z.string().optional(), value: z.string().optional() })).default([]),
  code: concept,
  subject: z.object({ reference: z.string() }).optional(),
  effectiveDateTime: z.string().optional(),
  performer: z.array(z.object({ display: z.string().optional() })).default([]),
  method: concept.optional(),
  bodySite: z.object({ text: z.string().optional() }).optional(),
  note: z.array(z.object({ text: z.string() })).default([]),
  valueQuantity: quantity.optional(),
  component: z
    .array(
      z.object({
        code: concept,
        valueQuantity: quantity.optional(),
        extension: z.array(z.object({ url: z.string(), valueString: z.string().optional() })).default([]),
      }),
    )
    .default([]),
})
type Observation = z.output<typeof observation>

interface Entry {
  /** Its place in the bundle, from 1. */
  line: number
  fullUrl: string
  value: unknown
}

/** Entries of a bundle, one after another. */
async function* entriesOf(path: string): AsyncGenerator<Entry> {
  const parser = new JSONParser({ paths: ['$.resourceType', '$.entry.*'], keepStack: false })
  let ready: Entry[] = []
  let line = 0
  let isBundle = false
  let fault: Error | null = null
  parser.onValue = ({ value, key }) => {
    if (key === 'resourceType') {
      isBundle = value === 'Bundle'
      return
    }
    line += 1
    const entry = z.object({ fullUrl: z.string().optional(), resource: z.unknown() }).safeParse(value)
    if (entry.success) ready.push({ line, fullUrl: entry.data.fullUrl ?? '', value: entry.data.resource })
  }
  parser.onError = (error) => (fault ??= error)
  const decoder = new TextDecoder('utf-8', { fatal: true })
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) {
    try {
      parser.write(decoder.decode(chunk, { stream: true }))
    } catch {
      throw new FhirRefused(NO_BUNDLE)
    }
    if (fault || line > MOST) throw new FhirRefused(NO_BUNDLE)
    yield* ready
    ready = []
  }
  if (!isBundle || !parser.isEnded) throw new FhirRefused(NO_BUNDLE)
}

interface Panel {
  protocolId: string
  assessor: string
  side: 'right' | 'left'
  note: string
}

/** People and check-ins of a bundle, wherever they stand in it. */
interface Heads {
  people: Map<string, IncomingClient>
  panels: Map<string, Panel>
  /** cm, by the reference of whose they are. */
  heights: Map<string, number>
}

function personOf(value: unknown): IncomingClient | null {
  const read = patient.safeParse(value)
  if (!read.success) return null
  const [name] = read.data.name
  const said = name?.text ?? [...(name?.given ?? []), name?.family ?? ''].join(' ')
  const { gender, birthDate } = read.data
  return {
    name: said.replace(/\s+/g, ' ').trim().slice(0, 120),
    sex: gender === 'female' || gender === 'male' ? gender : null,
    birthDate: birthDate && dayExists(birthDate) ? birthDate : null,
    heightCm: null,
  }
}

const checkinOf = ({ identifier }: Observation) =>
  identifier.find(({ system }) => system === SYSTEM.checkin)?.value ?? null
const isPanel = ({ code }: Observation) => code.coding.some(({ system }) => system === SYSTEM.panel)

/** A height of no check-in is the person's own. */
function noteHeight({ heights }: Heads, one: Observation): void {
  if (checkinOf(one) || measureOf(one.code.coding) !== 'height' || !one.valueQuantity || !one.subject) return
  const read = valueOf('height', one.valueQuantity)
  if (typeof read !== 'string')
    heights.set(one.subject.reference, read.unit === 'in' ? lengthToCm(read.value, 'in') : read.value)
}

async function headsOf(path: string): Promise<Heads> {
  const heads: Heads = { people: new Map(), panels: new Map(), heights: new Map() }
  for await (const { value, fullUrl } of entriesOf(path)) {
    const { success, data } = resource.safeParse(value)
    if (!success) continue
    if (data.resourceType === 'Patient') {
      const person = personOf(value)
      const id = (value as { id?: unknown }).id
      if (person && fullUrl) heads.people.set(fullUrl, person)
      if (person && typeof id === 'string') heads.people.set(`Patient/${id}`, person)
    }
    const read = data.resourceType === 'Observation' ? observation.safeParse(value) : null
    if (read?.success) noteHeight(heads, read.data)
    const id = read?.success && isPanel(read.data) ? checkinOf(read.data) : null
    if (read?.success && id)
      heads.panels.set(id, {
        protocolId: read.data.method?.coding.find(({ system }) => system === SYSTEM.set)?.code ?? '',
        assessor: read.data.performer[0]?.display ?? '',
        side: read.data.bodySite?.text === 'left' ? 'left' : 'right',
        note: read.data.note[0]?.text.slice(0, 4_000) ?? '',
      })
  }
  return heads
}

function valueOf(
  measure: Measure,
  { value, code, unit }: z.output<typeof quantity>,
): Pick<IncomingReading, 'value' | 'unit'> | string {
  const own = unitOfUcum(code ?? unit)
  if (!own) return `${measure}: the unit ${code ?? unit ?? 'none'} is not known here.`
  const read = readValue(measure, value, own)
  if (!read) return `${measure} holds no number.`
  return 'wrong' in read
    ? `${measure}: ${read.wrong}`
    : read.unit === own
      ? read
      : `${measure}: in ${own} this cannot be.`
}

function readingsOf(measure: Measure, one: Observation): IncomingReading[] | string {
  const method =
    WAY_IDS.find((way) => one.method?.coding.some(({ system, code }) => system === SYSTEM.way && code === way)) ?? null
  const plain = { site: measure, method, note: '', struck: false, round: 1 }
  if (one.component.length === 0) {
    if (!one.valueQuantity) return `${measure} holds no value.`
    const read = valueOf(measure, one.valueQuantity)
    return typeof read === 'string' ? read : [{ ...plain, ...read }]
  }
  const readings: IncomingReading[] = []
  for (const { code, valueQuantity, extension } of one.component) {
    const [, kind, round] =
      /^(round|struck)-(\d{1,2})$/.exec(code.coding.find(({ system }) => system === SYSTEM.reading)?.code ?? '') ?? []
    if (!kind || !valueQuantity || Number(round) < 1 || Number(round) > 20) continue
    const read = valueOf(measure, valueQuantity)
    if (typeof read === 'string') return read
    const note = extension.find(({ url }) => url === SYSTEM.note)?.valueString?.slice(0, 500) ?? ''
    readings.push({ ...plain, ...read, round: Number(round), struck: kind === 'struck', note })
  }
  return readings
}

/**
 * An instant, ms, of a FHIR dateTime (FHIR R4, data types: a day, or a time with its zone; a year or month alone says no
 * day a measure could be kept under). Null for anything else, also for what a browser's own reading of dates would take.
 */
function instantOf(text: string | undefined): number | null {
  if (!text || !/^\d{4}-\d\d-\d\d(T\d\d:\d\d:\d\d(\.\d{1,9})?(Z|[+-]\d\d:\d\d))?$/.test(text)) return null
  const time = Date.parse(text)
  return Number.isFinite(time) && dayExists(text.slice(0, 10)) ? time : null
}

function rowOf(one: Observation, line: number, { people, panels, heights }: Heads): IncomingRow | string | null {
  const measure = isPanel(one) ? null : measureOf(one.code.coding)
  if (!measure) return null
  const reference = one.subject?.reference ?? ''
  const person = people.get(reference)
  if (!person?.name) return 'This observation names no patient of the bundle.'
  const client = { ...person, heightCm: heights.get(reference) ?? null }
  const id = checkinOf(one)
  const panel = id ? panels.get(id) : undefined
  // A weight by itself is the diary's; another measure by itself is of no check-in.
  if (!panel && measure !== 'weight') return null
  const time = instantOf(one.effectiveDateTime)
  if (!one.effectiveDateTime || time === null)
    return 'This observation has no day or time that can be read (effectiveDateTime).'
  if (panel && !findProtocol(panel.protocolId)) return `The set ${panel.protocolId || '(none)'} is not known here.`
  const readings = readingsOf(measure, one)
  if (typeof readings === 'string') return readings
  const base = { line, client, at: new Date(time).toISOString(), day: one.effectiveDateTime.slice(0, 10), readings }
  return panel
    ? { ...base, ...panel }
    : { ...base, protocolId: null, assessor: '', side: 'right', note: '', readings: readings.slice(0, 1) }
}

/**
 * Check-ins and weights of a FHIR R4 bundle. What follows from others (BMI, percent) is left out: it is worked out anew.
 * @throws FhirRefused for what is no bundle
 */
export async function* incomingBundle(path: string, tell: Tell): AsyncGenerator<IncomingRow> {
  const heads = await headsOf(path)
  for await (const { value, line } of entriesOf(path)) {
    const { success, data } = resource.safeParse(value)
    if (!success || data.resourceType !== 'Observation') continue
    const read = observation.safeParse(value)
    const row = read.success
      ? rowOf(read.data, line, heads)
      : 'This observation does not have the form FHIR R4 gives it.'
    if (typeof row === 'string') tell({ line, column: null, message: row })
    else if (row) yield row
  }
}
