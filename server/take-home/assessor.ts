import { format, parseISO } from 'date-fns'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { TEM_MARKS } from '../../core/error'
import { DRILL_IDS, DRILLS, learningCurve } from '../../core/drills'
import { nextSteps } from '../../core/study'
import { isFold, SITES } from '../../core/sites'
import { formatNumber } from '../../core/units'
import type { Progress } from '../../shared/schemas/progress'

/** What an assessor's record is printed from. */
export interface AssessorFacts {
  studio: string
  day: string
  progress: Progress
}

const FADED = '#665d50'
const day = (iso: string) => format(parseISO(iso), 'd MMMM yyyy')
const one = (value: number | null | undefined) => (value === null || value === undefined ? '' : formatNumber(value, 1))
const head = (text: string) => ({ text, color: FADED, fontSize: 9.5 })
const title = (text: string) => ({
  text,
  fontSize: 15,
  bold: true,
  margin: [0, 14, 0, 4] as [number, number, number, number],
})

/** An assessor's record: work, repeats by site against the marks, bias, drills, what comes next. */
export function assessorDocument({ studio, day: today, progress }: AssessorFacts): TDocumentDefinitions {
  const { name, people, checkins, hours, sites, bias, drills, plan } = progress
  return {
    pageSize: 'A4',
    pageMargins: [50, 50, 50, 50],
    defaultStyle: { font: 'Text', fontSize: 11, lineHeight: 1.25 },
    content: [
      { text: name, fontSize: 24, bold: true },
      { text: `${studio}. Assessor’s record, ${day(today)}`, color: FADED, margin: [0, 0, 0, 14] },
      {
        text: `${people} different people, ${checkins} measurings, ${formatNumber(hours, 1)} hours with them.`,
      },
      ...(plan
        ? [
            {
              text: `Plan: ${plan.people} people by ${day(plan.byDay)}; ${plan.done} since ${day(plan.fromDay)}.${plan.note ? ` ${plan.note}` : ''}`,
            },
          ]
        : []),
      title('Repeats by site'),
      sites.length === 0
        ? { text: 'No site has been repeated often enough yet.' }
        : {
            layout: 'lightHorizontalLines',
            table: {
              headerRows: 1,
              widths: ['*', 60, 100, 60, 60],
              body: [
                ['Site', 'Error, %', '95 % interval', 'Mark, %', 'Repeats'].map(head),
                ...sites.map(({ site, now, repeats }) => [
                  SITES[site].name,
                  one(now.percent),
                  `${one(now.percentLow)} to ${one(now.percentHigh)}`,
                  String(TEM_MARKS[isFold(site) ? 'fold' : 'girth'].trained),
                  String(Math.round(repeats)),
                ]),
              ],
            },
          },
      ...(bias
        ? [
            title(`Against ${bias.reference}, ${day(bias.day)}`),
            {
              layout: 'lightHorizontalLines',
              table: {
                headerRows: 1,
                widths: ['*', 80, 120],
                body: [
                  ['Site', 'Bias, %', '95 % interval'].map(head),
                  ...bias.sites.map(({ site, percent, low, high }) => [
                    SITES[site].name,
                    one(percent),
                    `${one(low)} to ${one(high)}`,
                  ]),
                ],
              },
            },
          ]
        : []),
      title('Drills'),
      {
        ul: DRILL_IDS.flatMap((id) => {
          const own = drills.filter(({ drill }) => drill === id).map(({ score }) => score)
          const now = learningCurve(own).at(-1)
          if (!now) return []
          const { name: called, digits, unit } = DRILLS[id]
          return [`${called}: ${formatNumber(now.level, digits)} ${unit} after ${own.length} rounds`]
        }),
      },
      title('Next'),
      { ul: nextSteps(sites) },
      {
        text: 'Marks: 5 % for folds and 1 % for girths within one assessor’s repeats (accreditation practice, recalled). No certificate of any body.',
        color: FADED,
        fontSize: 9,
        margin: [0, 18, 0, 0],
      },
    ],
  }
}
