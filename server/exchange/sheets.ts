import { endFigures } from '../../core/following'
import { findProtocol } from '../../core/protocols'
import { isFold, SITES, type SiteId } from '../../core/sites'
import { massToKg } from '../../core/units'
import { dayCell, type CellValue, type SheetFacts } from '../../exchange/workbook'
import { changesSheet } from './changes-sheet'
import type { ExportedRecord } from './records'

type Records = () => AsyncIterable<ExportedRecord>

/** Rows of every client, one client after another. */
async function* rowsOf(records: Records, rows: (one: ExportedRecord) => Iterable<readonly CellValue[]>) {
  for await (const one of records()) yield* rows(one)
}

const sd = (variance: number | undefined) => (variance === undefined ? null : Math.sqrt(variance))

/** Sites any check-in may have, folds first. */
const ALL_SITES = (Object.keys(SITES) as SiteId[]).sort((a, b) => Number(isFold(b)) - Number(isFold(a)))

function checkins(records: Records, names: ReadonlyMap<string, string>): SheetFacts {
  return {
    name: 'Check-ins',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Day', format: 'day', width: 12 },
      { heading: 'Set', width: 28 },
      { heading: 'Assessor', width: 20 },
      { heading: 'Side' },
      { heading: 'Weight (kg)', format: 'two' },
      { heading: 'Height (cm)', format: 'one' },
      ...ALL_SITES.map((site) => ({
        heading: `${SITES[site].name} (${isFold(site) ? 'mm, fold' : 'cm, girth'})`,
        format: 'one' as const,
        width: 14,
      })),
      { heading: 'Note', width: 40 },
    ],
    rows: rowsOf(records, ({ history, record }) =>
      record.ends.map(({ record: visit, result }) => [
        history.client.name,
        dayCell(visit.day),
        findProtocol(visit.protocolId)?.name ?? visit.protocolId,
        visit.assessorId ? (names.get(visit.assessorId) ?? null) : null,
        visit.side,
        result.weightKg,
        result.heightCm,
        ...ALL_SITES.map((site) => result.values[site] ?? null),
        visit.note || null,
      ]),
    ),
  }
}

function readings(records: Records): SheetFacts {
  return {
    name: 'Readings',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Day', format: 'day', width: 12 },
      { heading: 'Site', width: 22 },
      { heading: 'Reading', format: 'whole' },
      { heading: 'Value', format: 'two' },
      { heading: 'Unit' },
      { heading: 'Struck' },
    ],
    rows: rowsOf(records, ({ history, record }) =>
      record.ends.flatMap(({ record: visit }) => {
        const struck = new Set(visit.strikes.map(({ readingId }) => readingId))
        return visit.readings.map((one) => [
          history.client.name,
          dayCell(visit.day),
          one.site in SITES ? SITES[one.site as SiteId].name : one.site,
          one.round,
          one.value,
          one.unit,
          struck.has(one.id) ? 'yes' : null,
        ])
      }),
    ),
  }
}

function results(records: Records): SheetFacts {
  const measured = (name: string, unit: string) => [
    { heading: `${name} (${unit})`, format: 'two' as const },
    { heading: `Error of ${name.toLowerCase()} (${unit}, one standard error of measuring)`, format: 'two' as const },
  ]
  return {
    name: 'Results',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Day', format: 'day', width: 12 },
      { heading: 'Equation', width: 40 },
      ...measured('Sum of folds', 'mm'),
      ...measured('Body fat', 'percent'),
      { heading: 'Usual error of the equation (percent)', format: 'two' },
      ...measured('Fat mass', 'kg'),
      ...measured('Lean mass', 'kg'),
      { heading: 'Body mass index (kg/m2)', format: 'two' },
    ],
    rows: rowsOf(records, ({ history, record }) =>
      record.ends.map((end) => {
        const { sum, percent, fat, lean } = endFigures(end)
        const { estimate, indexes } = end.result
        return [
          history.client.name,
          dayCell(end.record.day),
          percent && estimate ? estimate.equation.label : null,
          ...[sum, percent].flatMap((one) => [one?.value ?? null, sd(one?.variance)]),
          percent && estimate && 'seePercent' in estimate ? estimate.seePercent : null,
          ...[fat, lean].flatMap((one) => [one?.value ?? null, sd(one?.variance)]),
          indexes.bmi,
        ]
      }),
    ),
  }
}

function weighIns(records: Records): SheetFacts {
  return {
    name: 'Weigh-ins',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Day', format: 'day', width: 12 },
      { heading: 'Weight (kg)', format: 'two' },
      { heading: 'As entered', format: 'two' },
      { heading: 'Unit' },
    ],
    rows: rowsOf(records, ({ history }) =>
      history.weighIns.map(({ day, value, unit }) => [
        history.client.name,
        dayCell(day),
        massToKg(value, unit),
        value,
        unit,
      ]),
    ),
  }
}

function plans(records: Records): SheetFacts {
  return {
    name: 'Plan',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Set on', format: 'day', width: 12 },
      { heading: 'What' },
      { heading: 'Target', format: 'two' },
      { heading: 'Per week', format: 'two' },
      { heading: 'Unit' },
      { heading: 'By', format: 'day', width: 12 },
      { heading: 'Ended', format: 'day', width: 12 },
    ],
    rows: rowsOf(records, ({ history }) =>
      history.plans.map(({ at, kind, value, perWeek, unit, byDay, endedAt }) => [
        history.client.name,
        dayCell(at.slice(0, 10)),
        kind,
        value,
        perWeek,
        unit,
        byDay ? dayCell(byDay) : null,
        endedAt ? dayCell(endedAt.slice(0, 10)) : null,
      ]),
    ),
  }
}

function clients(records: Records): SheetFacts {
  return {
    name: 'Clients',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Sex' },
      { heading: 'Birth date', format: 'day', width: 12 },
      { heading: 'Height (cm)', format: 'one' },
      { heading: 'Check-ins', format: 'whole' },
      { heading: 'Last check-in', format: 'day', width: 14 },
      { heading: 'Archived' },
    ],
    rows: rowsOf(records, ({ history: { client }, record }) => [
      [
        client.name,
        client.sex,
        dayCell(client.birthDate),
        client.heightCm,
        record.ends.length,
        record.ends.length > 0 ? dayCell(record.ends.at(-1)?.record.day ?? '') : null,
        client.archived ? 'yes' : null,
      ],
    ]),
  }
}

/** Sheets of a workbook: of a studio, or of one client. */
export function sheetsOf(records: Records, names: ReadonlyMap<string, string>): SheetFacts[] {
  return [
    clients(records),
    checkins(records, names),
    readings(records),
    results(records),
    changesSheet(records),
    weighIns(records),
    plans(records),
  ]
}
