import { format, parseISO } from 'date-fns'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { BREACH_WORDS } from '../../core/challenge'
import { formatChange } from '../../core/units'
import type { ChallengeFacts, GroupStanding } from '../../shared/schemas/challenge'

/** What a closing protocol is printed from. */
export interface ProtocolFacts extends Omit<ChallengeFacts, 'candidates'> {
  studio: string
  groups: GroupStanding[]
}

const FADED = '#665d50'
/** Whether somebody has a place. */
const hasFirst = (standings: GroupStanding['standings']) => standings.some(({ place }) => place === 1)
const day = (iso: string) => format(parseISO(iso), 'd MMMM yyyy')
const share = (value: number) => `${formatChange(value)} %`

/** A challenge's closing protocol: rules, measurings, places with their chances, prize. Hidden people stand as such. */
export function protocolDocument({ studio, challenge, entries, groups, winners }: ProtocolFacts): TDocumentDefinitions {
  const byId = new Map(entries.map((one) => [one.id, one]))
  const shown = (id: string) => {
    const entry = byId.get(id)
    if (!entry || entry.shownAs === 'hidden') return 'somebody who is not shown'
    return entry.shownAs === 'alias' ? entry.alias : entry.clientName
  }
  const figure = challenge.figure === 'sum' ? 'the sum of folds' : 'fat mass'
  const uncounted = entries.filter(({ leftAt, runner }) => leftAt === null && runner === null)
  const paced = entries.filter(({ leftAt, paced: slowed }) => leftAt === null && slowed).length
  return {
    pageSize: 'A4',
    pageMargins: [50, 50, 50, 50],
    defaultStyle: { font: 'Text', fontSize: 11, lineHeight: 1.25 },
    content: [
      { text: challenge.name, fontSize: 24, bold: true },
      {
        text: `${studio}. ${day(challenge.startsOn)} to ${day(challenge.endsOn)}`,
        color: FADED,
        margin: [0, 0, 0, 14],
      },
      {
        ul: [
          `Counted: change of ${figure} in percent of everybody’s own start, first to last measuring.`,
          'Both by the same assessor with the same caliper under the same conditions, the last one blind.',
          'A place is for a loss beyond the error of measuring; where there is none, there is no first place.',
          'Places are shared where the error of measuring does not part people; beside each the chance of having lost most.',
          `Loss beyond 1 % of body weight a week is not counted${paced > 0 ? ` (${paced} of those who took part)` : ''}.`,
          challenge.prizeRule === 'share'
            ? 'The prize is shared by all at the first place.'
            : 'The prize goes by lot to one of those at the first place.',
          'Nobody wins by gaining, or without a loss that is real.',
        ],
        margin: [0, 0, 0, 14],
      },
      ...groups.flatMap(({ name, standings }) => [
        {
          text: name || 'Everybody',
          fontSize: 15,
          bold: true,
          margin: [0, 8, 0, 4] as [number, number, number, number],
        },
        {
          layout: 'lightHorizontalLines',
          table: {
            headerRows: 1,
            widths: [40, '*', 130, 80],
            body: [
              ['Place', 'Name', 'Of the own start', 'First by'].map((text) => ({ text, color: FADED, fontSize: 9.5 })),
              ...standings.map((one) => [
                one.place === null ? '' : String(one.place),
                shown(one.id),
                byId.get(one.id)?.shownAs === 'hidden'
                  ? ''
                  : `${share(one.change)} (${share(one.low)} to ${share(one.high)})`,
                !hasFirst(standings)
                  ? ''
                  : one.first < 0.005
                    ? 'under 1 in 100'
                    : `${Math.round(100 * one.first)} in 100`,
              ]),
            ],
          },
        },
      ]),
      ...(uncounted.length > 0
        ? [
            {
              text: 'Not counted',
              fontSize: 15,
              bold: true,
              margin: [0, 12, 0, 4] as [number, number, number, number],
            },
            {
              ul: uncounted.map((one) => {
                const why = one.breaches.map((breach) => BREACH_WORDS[breach]).join(', ')
                return `${shown(one.id)}: ${(one.suspended && 'not counted at present') || why || (one.first ? 'no last measuring' : 'no first measuring')}.`
              }),
            },
          ]
        : []),
      {
        text: challenge.closedAt
          ? `Closed on ${day(challenge.closedAt.slice(0, 10))}. The prize goes to ${winners.map(shown).join(', ') || 'nobody'}.`
          : 'Not closed yet: this is how it stands today.',
        margin: [0, 16, 0, 0],
        bold: true,
      },
      { text: 'Local rules on prizes and on health data decide.', color: FADED, fontSize: 9.5, margin: [0, 6, 0, 0] },
    ],
  }
}
