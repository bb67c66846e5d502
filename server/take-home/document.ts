import { format, parseISO } from 'date-fns'
import type { Day } from '../../core/calendar'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import { takeHomeChart } from './chart'
import type { TakeHome, TakeHomeFigure, TakeHomeRow } from './facts'

const INK = '#22201b'
const FADED = '#665d50'
const RULE = '#d9d1c3'

/** What verdicts and numbers mean, in words a client reads. */
const VERDICTS: readonly (readonly [string, string])[] = [
  ['some sign', 'it points that way and is not sure yet: the next check-ins will tell.'],
  [
    'too early to say',
    'no change would give such measurements about as well; the two numbers in brackets say how much it could be.',
  ],
  ['no sign of change', 'no change explains these measurements better; how much may still hide stands in brackets.'],
  ['34 x', 'these measurements are 34 times likelier if something changed than if nothing did.'],
  ['in brackets', 'the change lies between the two numbers in nineteen comparisons out of twenty.'],
]

/** Characters of words beside which the plan's picture fits. */
const MOST_WORDS = 420

const ruled = {
  hLineWidth: (i: number) => (i <= 1 ? 1 : 0.5),
  vLineWidth: () => 0,
  hLineColor: (i: number) => (i <= 1 ? INK : RULE),
  paddingLeft: () => 0,
  paddingRight: () => 10,
  paddingTop: () => 2,
  paddingBottom: () => 2,
}

function day(iso: Day): string {
  return format(parseISO(iso), 'd MMMM yyyy')
}

function figure({ name, value, unit, change, verdict, isReal, colour }: TakeHomeFigure): Content {
  return {
    stack: [
      { text: name, color: FADED, fontSize: 10 },
      {
        text: [
          { text: value, bold: true, fontSize: 26, color: colour },
          { text: ` ${unit}`, color: FADED },
        ],
      },
      // Small enough for the widest interval to stay on one line with its unit.
      { text: change ? `${change} ${unit}` : 'not compared', fontSize: 9.5 },
      { text: verdict ?? '', bold: isReal, fontSize: 11 },
    ],
  }
}

function table(title: string, rows: readonly TakeHomeRow[]): Content[] {
  if (rows.length === 0) return []
  const head = (text: string, right = true): TableCell => ({
    text,
    color: FADED,
    fontSize: 9.5,
    alignment: right ? 'right' : 'left',
  })
  const cell = (text: string, bold = false): TableCell => ({ text, bold, alignment: 'right' })
  return [
    { text: title, style: 'heading' },
    {
      layout: ruled,
      fontSize: 10,
      table: {
        headerRows: 1,
        widths: ['*', 34, 34, 112, 128],
        body: [
          [head('', false), head('Then'), head('Now'), head('Change'), head('', false)],
          ...rows.map(({ name, then, now, change, verdict, isReal }): TableCell[] => [
            { text: name, bold: true },
            cell(then),
            cell(now),
            cell(change, isReal),
            { text: verdict, bold: isReal },
          ]),
        ],
      },
    },
  ]
}

/** The page of somebody in neutral mode: what was done, what went well, when the next visit is. */
function neutralDocument({ studio, client, from, to, words, method, next }: TakeHome): TDocumentDefinitions {
  const said: Content[] = words.map((text) => ({ text, fontSize: 13, margin: [0, 0, 0, 4] }))
  return {
    ...pageOf(studio, `${client}, ${day(to)}`),
    content: [
      { text: client, bold: true, fontSize: 24 },
      { text: from ? `${day(from)} to ${day(to)}` : day(to), color: FADED, fontSize: 12, margin: [0, 0, 0, 14] },
      { text: 'What was done', style: 'heading' },
      ...method,
      { text: 'What went well', style: 'heading' },
      ...said,
      ...(next ? [{ text: 'Next time', style: 'heading' }, `About ${day(next)}.`] : []),
    ],
  }
}

/** What every page to take home looks like. */
function pageOf(studio: string, title: string): Omit<TDocumentDefinitions, 'content'> {
  return {
    info: { title, creator: 'Oak Pinch' },
    pageSize: 'A4',
    pageMargins: [40, 40, 40, 46],
    defaultStyle: { font: 'Text', fontSize: 11, color: INK, lineHeight: 1.2 },
    styles: { heading: { bold: true, fontSize: 13, margin: [0, 12, 0, 4] } },
    footer: (page, pages) => ({
      margin: [40, 12, 40, 0],
      fontSize: 8.5,
      color: FADED,
      columns: [
        {
          text: `${studio}. A measurement, not a diagnosis: with a question about your health, please see a doctor or a registered dietitian.`,
        },
        { text: `${page} of ${pages}`, alignment: 'right', width: 50 },
      ],
    }),
  }
}

/** The two pages to take home: figures, words and chart first; then every site and how to read it. */
export function takeHomeDocument(facts: TakeHome): TDocumentDefinitions {
  if (facts.neutral) return neutralDocument(facts)
  const { studio, client, from, to, figures, words, lines, shade, folds, girths, lengthUnit, method, promise, plan } =
    facts
  // Both pictures fit the first page beside words of this length; beside longer ones the plan is its paragraph.
  const fits = plan !== null && words.join(' ').length <= MOST_WORDS
  const span = from ? `${day(from)} to ${day(to)}` : day(to)
  return {
    ...pageOf(studio, `${client}, ${span}`),
    content: [
      { text: client, bold: true, fontSize: 24 },
      { text: span, color: FADED, fontSize: 12, margin: [0, 0, 0, 14] },
      { columns: figures.map(figure), columnGap: 14 },
      { text: 'In words', style: 'heading' },
      ...words.map((sentence): Content => ({ text: sentence, fontSize: 12, margin: [0, 0, 0, 3] })),
      ...(lines.length > 0
        ? [
            { text: 'Over time', style: 'heading' },
            { svg: takeHomeChart(lines, shade, fits && lines.length > 1 ? 54 : undefined) },
            {
              text: 'The upright strokes are the error of measuring; the shaded part is the time compared.',
              color: FADED,
              fontSize: 9,
            },
          ]
        : []),
      ...(plan
        ? [
            { text: 'The plan', style: 'heading' },
            { text: plan.said, fontSize: 11, margin: [0, 0, 0, 4] } satisfies Content,
            ...(fits ? [{ svg: takeHomeChart([plan.line], null, 50) }] : []),
          ]
        : []),
      { text: 'Site by site', bold: true, fontSize: 18, pageBreak: 'before' },
      ...table('Folds, mm', folds),
      ...table(`Girths, ${lengthUnit}`, girths),
      ...(folds.length + girths.length === 0 ? [{ text: 'There is nothing to compare yet.' }] : []),
      { text: 'How to read it', style: 'heading' },
      { text: promise, fontSize: 10, margin: [0, 0, 0, 2] },
      ...VERDICTS.map(([name, meaning]): Content => ({
        text: [{ text: `${name}: `, bold: true }, meaning],
        fontSize: 10,
        margin: [0, 0, 0, 2],
      })),
      { text: 'How it was measured', style: 'heading' },
      ...method.map((sentence): Content => ({ text: sentence, fontSize: 10, margin: [0, 0, 0, 1] })),
    ],
  }
}
