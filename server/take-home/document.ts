import { format, parseISO } from 'date-fns'
import type { Day } from '../../core/calendar'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import { takeHomeChart } from './chart'
import type { TakeHome, TakeHomeFigure, TakeHomeRow } from './facts'

const INK = '#22201b'
const FADED = '#665d50'
const RULE = '#d9d1c3'

/** What the signs of a change mean, in words a client reads. */
const SIGNS: readonly (readonly [string, string])[] = [
  ['some sign', 'it points that way and is not sure yet: the next check-ins will show.'],
  ['too early to say', 'the readings fit a change and no change about as well.'],
  ['no sign of change', 'the readings fit no change best.'],
  ['holding steady', 'any change is very likely smaller than one that matters.'],
  [
    'measuring error',
    'two visits to a body that does not change differ by less than this nineteen times out of twenty.',
  ],
]

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

/** The row that leads the page, large. */
function leading({ name, then, now, unit, difference, sign, reason, isReal, colour }: TakeHomeFigure): Content {
  return {
    margin: [0, 10, 0, 4],
    stack: [
      { text: name, color: FADED, fontSize: 11 },
      {
        text: [
          ...(then ? [{ text: `${then} to `, fontSize: 18, color: FADED }] : []),
          { text: now, bold: true, fontSize: 34, color: colour },
          { text: ` ${unit}`, color: FADED, fontSize: 13 },
          ...(difference ? [{ text: `    ${difference}`, bold: true, fontSize: 20 }] : []),
        ],
      },
      ...(sign ? [{ text: sign, bold: isReal, fontSize: 13 }] : []),
      ...(reason ? [{ text: reason, color: FADED, fontSize: 9.5 }] : []),
    ],
  }
}

function table(title: string, rows: readonly TakeHomeRow[], withUnits = false): Content[] {
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
        widths: ['*', 40, 40, 62, 150],
        body: [
          [head('', false), head('Then'), head('Now'), head('Difference'), head('', false)],
          ...rows.map(({ name, then, now, unit, difference, sign, isReal }): TableCell[] => [
            { text: withUnits ? `${name}, ${unit}` : name, bold: true },
            cell(then ?? ''),
            cell(now),
            cell(difference ?? '', isReal),
            { text: sign ?? '', bold: isReal },
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

/** The two pages to take home: what a client understands without the coach first; then every site and how to read it. */
export function takeHomeDocument(facts: TakeHome): TDocumentDefinitions {
  if (facts.neutral) return neutralDocument(facts)
  const { studio, client, from, to, figures, words, lines, shade, folds, girths, lengthUnit, method, promise } = facts
  const { plan, next } = facts
  const span = from ? `${day(from)} to ${day(to)}` : day(to)
  const [lead, ...others] = figures
  const line = lines.find((one) => one.figure === lead?.figure) ?? lines[0]
  const isCompared = figures.some(({ then }) => then !== null)
  return {
    ...pageOf(studio, `${client}, ${span}`),
    content: [
      { text: client, bold: true, fontSize: 24 },
      { text: span, color: FADED, fontSize: 12, margin: [0, 0, 0, 10] },
      ...words.map((sentence): Content => ({ text: sentence, fontSize: 15, margin: [0, 0, 0, 3] })),
      ...(lead ? [leading(lead)] : []),
      ...(line
        ? [
            { svg: takeHomeChart([line], shade, 170) },
            { text: 'Upright strokes: measuring error. Shaded: the time compared.', color: FADED, fontSize: 9 },
          ]
        : []),
      ...(plan
        ? [
            { text: 'The plan', style: 'heading' },
            { text: plan.said, fontSize: 11, margin: [0, 0, 0, 4] } satisfies Content,
            { svg: takeHomeChart([plan.line], null, 60) },
          ]
        : []),
      { text: 'Next time', style: 'heading' },
      { text: `About ${day(next)}, at ${studio}.`, fontSize: 12 },
      ...(isCompared || folds.length + girths.length > 0
        ? [
            { text: 'In detail', bold: true, fontSize: 18, pageBreak: 'before' } satisfies Content,
            ...table('Other figures', others, true),
            ...table('Folds, mm', folds),
            ...table(`Girths, ${lengthUnit}`, girths),
            { text: 'How to read it', style: 'heading' } satisfies Content,
            { text: promise, fontSize: 10, margin: [0, 0, 0, 2] } satisfies Content,
            ...SIGNS.map(([name, meaning]): Content => ({
              text: [{ text: `${name}: `, bold: true }, meaning],
              fontSize: 10,
              margin: [0, 0, 0, 2],
            })),
          ]
        : []),
      { text: 'How it was measured', style: 'heading' },
      ...method.map((sentence): Content => ({ text: sentence, fontSize: 10, margin: [0, 0, 0, 1] })),
    ],
  }
}
