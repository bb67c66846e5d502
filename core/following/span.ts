import { daysBetween, type Day } from '../calendar'
import { comparability, type Comparability } from '../composition/comparability'
import type { SpanEnd } from '../composition/end-figures'
import { dayOf } from '../composition/facts'
import { onTermsOf, sameWay } from '../composition/terms'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { isFold, type SiteId } from '../sites'
import { recomposition, type Recomposition } from '../trend/recomposition'
import type { MassUnit } from '../units'
import { changeOf, type Change } from './change'
import { chosenShare } from './budget'
import { copyingIn, type Copying } from './copies'
import { endFigures, type EndFigures } from './end-figures'
import { figureOver } from './figures'
import { ASSUMED_NOISES, familyOf, type Noises } from './learning'
import type { OddsSeries } from './odds'
import { settledOn } from './planning'
import { hangsOn } from './words'
import type { Standing } from './verdict'
import { figureTerms, lineOf, LIMBS, type FigureId, type Limb } from './weights'
import { smallestOf, WORTHWHILE, type Worthwhile } from './worthwhile'

/** One site over a span. Folds mm, girths cm. */
export interface SpanSite {
  site: SiteId
  change: Change
}

/** Everything about a comparison of two check-ins, judged by all between them. Null: not known at both ends, or not comparable. */
export interface Span {
  days: number
  comparability: Comparability
  /** What each end says by itself. */
  then: EndFigures
  now: EndFigures
  weight: Change | null
  /** Of the weeks' means of daily weights, a figure of its own. */
  week: Change | null
  fat: Change | null
  lean: Change | null
  percent: Change | null
  /** Sum of the folds both ends hold, mm, and which they are. */
  sum: Change | null
  summed: SiteId[]
  folds: SpanSite[]
  girths: SpanSite[]
  corrected: { limb: Limb; change: Change }[]
  recomposition: Recomposition | null
  /** The figure the promise belongs to: the sum of folds, for sets without folds the chosen percent, else a girth. */
  leading: Change | null
  /** Where the leading one is not settled: the day of the check-in that would tell it at this pace; null: not in sight. */
  settlesOn: Day | null
  /** What the percent takes beside sites: a wrong one would move it alone. */
  percentHangsOn: ('weight' | 'height')[]
  /** Assessors whose second readings repeat the first beyond chance: their equal pairs count once. */
  copying: Copying
}

/** What a span is judged with. */
export interface SpanSettings {
  model?: ErrorModel
  /** What is held of the noise at the later end: learnt from others up to it, or assumed. */
  noises?: Noises
  /** Share of the budget the start has (see budget.ts): its odds count as much. */
  share?: number
  massUnit?: MassUnit
  /** What was held of the noise on the day of an earlier look; without it what is held now. */
  noisesOn?: (day: Day) => Noises
  /** False: what was said at earlier looks is not worked out, which halves the work. */
  running?: boolean
  /** What was said of figures at the look before, in place of working it out. */
  before?: Partial<Record<FigureId, Standing>>
  worthwhile?: Worthwhile
}

/** The two ends on common terms, with the judge of any figure between them. */
function judgeOf(visits: readonly SpanEnd[], settings: SpanSettings) {
  const {
    model = ASSUMED_ERRORS,
    noises = ASSUMED_NOISES,
    share = chosenShare(1),
    noisesOn,
    before,
    worthwhile = WORTHWHILE,
  } = settings
  const { running = before === undefined } = settings
  const newest = visits.at(-1)
  if (!newest || visits.length < 2) throw new RangeError('A span needs two check-ins.')
  const ends = visits.map((end) => onTermsOf(end, newest))
  const [a, b] = [ends[0] as SpanEnd, ends.at(-1) as SpanEnd]
  const shared = b.result.session.sites.flatMap(({ site, value }) =>
    value !== null && a.result.values[site] !== undefined && sameWay(a, b, site) ? [site] : [],
  )
  const summed = shared.filter((site) => isFold(site))
  const copying = copyingIn(ends, model)
  const terms = figureTerms(ends, b, model)
  const over = (figure: FigureId, folds: readonly SiteId[] = summed) => {
    const found = figureOver(figure, ends, terms, { summed: folds, model, copying })
    // A figure that begins later than the span says nothing about its start.
    return found && found.ends[0] === a ? found : null
  }
  /** The sum with one site left out each. */
  const without = () =>
    summed.flatMap((site) => {
      const rest = over(
        'sum',
        summed.filter((one) => one !== site),
      )
      return rest ? [{ site, series: rest.series }] : []
    })
  /** @param among sites share one verdict: how many they are */
  const judged = (figure: FigureId, among = 1) => {
    const found = over(figure)
    const family = familyOf(figure)
    const smallest = found && smallestOf(figure, found.series.values[0] ?? 0, worthwhile)
    const stood = before?.[figure]
    return changeOf(figure, found, {
      noise: noises[family],
      line: lineOf(figure),
      share: share / among,
      ...(running ? { noiseOn: (day: Day) => (noisesOn?.(day) ?? noises)[family] } : {}),
      ...(stood ? { before: stood } : {}),
      ...(smallest === null ? {} : { smallest }),
      ...(figure === 'sum' && summed.length > 1 ? { without } : {}),
    })
  }
  return { a, b, shared, summed, copying, over, without, judged, model, noises }
}

/** A figure over a span with all that judging it needs, and nothing of the check-ins: what a list keeps. */
export interface FigureCase {
  figure: FigureId
  series: OddsSeries
  days: Day[]
  /** The sum with one site left out each. */
  without: { site: SiteId; series: OddsSeries }[]
}

/** Figures over a span, ready to be judged. */
export function figureCases(
  visits: readonly SpanEnd[],
  figures: readonly FigureId[],
  model: ErrorModel = ASSUMED_ERRORS,
): FigureCase[] {
  const { over, without, summed } = judgeOf(visits, { model })
  return figures.flatMap((figure) => {
    const found = over(figure)
    if (!found) return []
    const { series, days } = found
    return [{ figure, series, days, without: figure === 'sum' && summed.length > 1 ? without() : [] }]
  })
}

/** Judges a case with the noises held, and those held at its earlier looks. */
export function judgeCase(
  { figure, series, days, without }: FigureCase,
  noises: Noises,
  {
    share = chosenShare(1),
    noisesOn,
    worthwhile = WORTHWHILE,
  }: Pick<SpanSettings, 'share' | 'noisesOn' | 'worthwhile'> = {},
): Change | null {
  const family = familyOf(figure)
  const smallest = smallestOf(figure, series.values[0] ?? 0, worthwhile)
  return changeOf(
    figure,
    { series, days },
    {
      noise: noises[family],
      line: lineOf(figure),
      share,
      without: () => without,
      ...(noisesOn ? { noiseOn: (day: Day) => noisesOn(day)[family] } : {}),
      ...(smallest === null ? {} : { smallest }),
    },
  )
}

/** Some figures over a span, judged by all check-ins from its start to its end. */
export function judgeFigures<Figure extends FigureId>(
  visits: readonly SpanEnd[],
  figures: readonly Figure[],
  settings: SpanSettings = {},
): Record<Figure, Change | null> {
  const { judged } = judgeOf(visits, settings)
  return Object.fromEntries(figures.map((figure) => [figure, judged(figure)])) as Record<Figure, Change | null>
}

/**
 * Figures looked at after every check-in since the first, each with what was said at the look before: what a coach was
 * told. By check-in from the second on.
 * @param noisesAt what was held of the noise at the check-in of this place
 */
export function followLooks<Figure extends FigureId>(
  ends: readonly SpanEnd[],
  figures: readonly Figure[],
  {
    noisesAt,
    ...settings
  }: { noisesAt: (place: number) => Noises } & Pick<SpanSettings, 'share' | 'worthwhile' | 'model'>,
): Record<Figure, Change | null>[] {
  const before: Partial<Record<FigureId, Standing>> = {}
  return ends.slice(1).map((_, i) => {
    const found = judgeFigures(ends.slice(0, i + 2), figures, { ...settings, noises: noisesAt(i + 1), before })
    for (const figure of figures) {
      const change = found[figure]
      if (change) before[figure] = change.standing
    }
    return found
  })
}

/**
 * Everything about a comparison of two check-ins of one client, from the whole history between them: what changed, how
 * likely that is held against no change at all, and what can be compared. The level's standard error stays out of it: it
 * sits on every visit alike.
 * @param visits from the earlier check-in to the later one, oldest first, at least two
 * @throws RangeError with fewer
 */
export function composeSpan(visits: readonly SpanEnd[], settings: SpanSettings = {}): Span {
  const { a, b, shared, summed, copying, over, judged, model, noises } = judgeOf(visits, settings)
  const comparable = comparability(a, b)
  const sites = shared.flatMap((site): SpanSite[] => {
    const change = judged(site, shared.length)
    return change ? [{ site, change }] : []
  })
  const byEquation = (figure: FigureId) => (comparable.percent ? judged(figure) : null)
  const difference = byEquation('lean-less-fat')
  const [sum, percent] = [judged('sum'), byEquation('percent')]
  const leading = sum ?? percent ?? sites[0]?.change ?? null
  const led = leading && leading.verdict !== 'real' ? over(leading.figure) : null
  return {
    days: daysBetween(dayOf(a.facts), dayOf(b.facts)),
    comparability: comparable,
    then: endFigures(a, model),
    now: endFigures(b, model),
    weight: judged('weight'),
    week: judged('week-weight'),
    fat: byEquation('fat'),
    lean: byEquation('lean'),
    percent,
    sum,
    summed,
    folds: sites.filter(({ site }) => isFold(site)),
    girths: sites.filter(({ site }) => !isFold(site)),
    corrected: LIMBS.flatMap(({ limb }) => {
      const change = judged(`corrected-${limb}`, shared.length)
      return change ? [{ limb, change }] : []
    }),
    recomposition: difference && recomposition(difference, settings.massUnit ?? 'lb'),
    leading,
    settlesOn: led && leading ? settledOn(led, leading, noises[familyOf(leading.figure)]) : null,
    percentHangsOn: hangsOn(b),
    copying,
  }
}
