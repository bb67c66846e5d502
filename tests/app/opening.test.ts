import { subDays } from 'date-fns'
import { describe, expect, it } from 'vitest'
import { chartSeries, drawnSeries } from '../../app/components/span/span-series'
import { spansSeen } from '../../app/composables/spans-seen'
import { PROTOCOLS } from '../../core/protocols'
import { followRecord, noisesAt, openingSeries, SHOWN_AT_ONCE, spanOfRecord } from '../../shared/followed-record'
import { openingOf } from '../../server/repositories/opening'
import type { CheckinRecord } from '../../shared/schemas/checkin'
import type { ClientHistory } from '../../shared/schemas/following'
import { rounds, weight } from '../support/readings'

const UNITS = { mass: 'lb', length: 'cm' } as const
const FOLDS = [14, 13, 8, 10, 15, 20, 22]
const protocol = PROTOCOLS['laboratory-7']

/** A history of weekly check-ins with slowly falling folds; `read` counts which of them were composed. */
function historyOf(count: number, read = new Set<number>()): ClientHistory {
  const checkins = Array.from({ length: count }, (_, i) => {
    const at = subDays(new Date('2026-11-20T17:00:00.000Z'), 7 * (count - 1 - i)).toISOString()
    const values = FOLDS.map((mm) => mm * (1 - i / 500))
    const readings = [weight(72 - i / 50), ...rounds(protocol, values, values)]
    return {
      id: `visit ${i}`,
      protocolId: protocol.id,
      startedAt: at,
      finishedAt: at,
      day: at.slice(0, 10),
      get readings() {
        read.add(i)
        return readings
      },
      strikes: [],
      skips: [],
      conditions: {},
      side: 'right',
      policies: {},
    } as unknown as CheckinRecord
  })
  return {
    client: { id: 'a', name: 'Svea Holm', sex: 'female', birthDate: '1992-03-14', heightCm: 174, flags: [] },
    checkins,
    choices: [],
    calipers: [],
    weighIns: [],
  } as unknown as ClientHistory
}

describe('spans a jaw has passed', () => {
  const settings = { massUnit: 'kg', running: false, judged: true } as const

  it('are found once, and anew for another record, place or setting', () => {
    const [record, changed] = [followRecord(historyOf(12)), followRecord(historyOf(12))]
    const spanOf = spansSeen()
    const first = spanOf(record, { fromId: null, toId: 'visit 8' }, settings)
    expect(first).toEqual(spanOfRecord(record, { toId: 'visit 8' }, settings))
    const other = spanOf(record, { fromId: 'visit 2', toId: 'visit 8' }, settings)
    expect([other.fromIndex, other.toIndex]).toEqual([2, 8])
    expect(spanOf(record, { fromId: null, toId: 'visit 8' }, settings)).toBe(first)
    expect(spanOf(record, { fromId: null, toId: 'visit 8' }, { ...settings, running: true })).not.toBe(first)
    expect(spanOf(record, { fromId: null, toId: 'visit 8' }, { ...settings, massUnit: 'lb' })).not.toBe(first)
    expect(spanOf(changed, { fromId: null, toId: 'visit 8' }, settings).now).toBe(changed.ends[8])
    expect(spanOf(record, { fromId: null, toId: 'visit 8' }, settings)).not.toBe(first)
  })
})

describe('what a long history’s chart draws as it opens', () => {
  it('is what the page would compose itself, brought over the network', () => {
    const history = historyOf(SHOWN_AT_ONCE + 1)
    const opening = JSON.parse(JSON.stringify(openingSeries(history)))
    const record = followRecord(history)
    const newest = record.ends.at(-1)
    if (!newest) throw new Error('no check-in')
    const settings = { noises: noisesAt(record, newest), units: UNITS }
    const composed = chartSeries(record.ends, newest, settings)
    expect(composed.fat).toHaveLength(SHOWN_AT_ONCE + 1)
    expect(drawnSeries(opening, UNITS)).toEqual(composed)
    expect(followRecord({ ...history, opening }).opening).toEqual(opening)
  })

  it('is put together for long histories of finished check-ins only', () => {
    const history = historyOf(SHOWN_AT_ONCE + 1)
    expect(openingSeries(historyOf(SHOWN_AT_ONCE))).toBeNull()
    const [first, ...rest] = history.checkins as [CheckinRecord, ...CheckinRecord[]]
    expect(openingSeries({ ...history, checkins: [...rest, { ...first, finishedAt: null }] })).toBeNull()
    expect(followRecord(history).opening).toBeNull()
  })

  it('is computed by the server once as long as the history is the same', () => {
    const history = historyOf(SHOWN_AT_ONCE + 1)
    const opening = openingOf(history)
    expect(opening?.sum).toHaveLength(SHOWN_AT_ONCE + 1)
    expect(openingOf({ ...history })).toBe(opening)
    // Second readings struck, whatever else stands still: the sum of that day is less sure.
    const struck = history.checkins.map((one, i) =>
      i === 30
        ? { ...one, strikes: one.readings.slice(-2).map(({ id }) => ({ readingId: id, struckAt: one.day })) }
        : one,
    )
    const later = openingOf({ ...history, checkins: struck })
    expect(later?.sum[30]?.error).toBeGreaterThan(opening?.sum[30]?.error ?? Infinity)
    expect(later?.sum[29]).toEqual(opening?.sum[29])
    expect(openingOf(historyOf(SHOWN_AT_ONCE))).toBeNull()
  })

  it('leaves the page two check-ins to compose before its chart is drawn', () => {
    const read = new Set<number>()
    const record = followRecord(historyOf(200, read))
    const { then, now, figures, span } = spanOfRecord(record, {}, { judged: false })
    expect([then?.record.id, now?.record.id, span]).toEqual(['visit 0', 'visit 199', null])
    expect(figures?.sum?.value).toBeCloseTo(102 * (1 - 199 / 500), 9)
    expect([...read].sort((a, b) => a - b)).toEqual([0, 199])
    // Judging asks what all of them say, once each.
    spanOfRecord(record)
    expect(read.size).toBe(200)
    read.clear()
    spanOfRecord(record, { fromId: 'visit 20' })
    expect(read.size).toBe(0)
  })
})
