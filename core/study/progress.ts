import { TEM_MARKS, type Repeats } from '../error'
import { isFold, SITES, type SiteId } from '../sites'
import { formatNumber } from '../units'
import { chiSquareAt } from './quantiles'
import { standingOf, type Standing } from './study'
import { temFrom, type TemResult } from './tem'

/** An assessor's repeats at a site in one stretch of time. */
export interface RepeatsAt extends Repeats {
  site: SiteId
  /** Stretches back from today: 0 is the newest. */
  stretch: number
}

/** Days of a stretch: a season. */
export const STRETCH_DAYS = 90
/** Stretches looked at: a year and a half. */
export const STRETCHES = 6

/** How an assessor repeats at one site, and how that went. */
export interface SiteProgress {
  site: SiteId
  now: TemResult
  standing: Standing | null
  sure: boolean
  /** Percent by stretch, oldest first; null: nothing repeated in it. */
  course: (number | null)[]
  /** Repeats there are, and more that would tell on which side of the mark it is, at this error; null: it is told. */
  repeats: number
  more: number | null
}

/** Fewest repeats a site is spoken of. */
const FEWEST = 4
const MOST_MORE = 400

/** More repeats until the interval leaves the mark out, the error staying what it is; null beyond 400. */
function moreToTell(percent: number, freedom: number, mark: number): number | null {
  for (let total = Math.max(2, Math.ceil(freedom)); total <= freedom + MOST_MORE; total += 1) {
    const low = percent * Math.sqrt(total / chiSquareAt(0.975, total))
    const high = percent * Math.sqrt(total / chiSquareAt(0.025, total))
    if (low > mark || high < mark) return Math.max(0, total - Math.floor(freedom))
  }
  return null
}

/** An assessor's technical error by site over the last stretches, the worst against its mark first. */
export function siteProgress(all: readonly RepeatsAt[]): SiteProgress[] {
  const sites = [...new Set(all.map(({ site }) => site))]
  return sites
    .flatMap((site): SiteProgress[] => {
      const own = all.filter((one) => one.site === site)
      const pooled = own.reduce(
        (sum, one) => ({
          squares: sum.squares + one.squares,
          freedom: sum.freedom + one.freedom,
          total: sum.total + one.total,
          readings: sum.readings + one.readings,
        }),
        { squares: 0, freedom: 0, total: 0, readings: 0 },
      )
      if (pooled.freedom < FEWEST) return []
      const now = temFrom(pooled.squares, pooled.freedom, pooled.total / pooled.readings, pooled.freedom)
      const { standing, sure } = standingOf(site, now)
      const mark = TEM_MARKS[isFold(site) ? 'fold' : 'girth'].trained
      const course = Array.from({ length: STRETCHES }, (_, i) => {
        const stretch = own.find((one) => one.stretch === STRETCHES - 1 - i)
        if (!stretch || stretch.freedom < 2) return null
        return (100 * Math.sqrt(stretch.squares / stretch.freedom)) / (stretch.total / stretch.readings)
      })
      const more = sure || now.percent === null || now.belowMarks ? null : moreToTell(now.percent, pooled.freedom, mark)
      return [{ site, now, standing, sure, course, repeats: pooled.freedom, more }]
    })
    .sort((a, b) => shareOfMark(b) - shareOfMark(a))
}

function shareOfMark({ site, now }: SiteProgress): number {
  return (now.percent ?? 0) / TEM_MARKS[isFold(site) ? 'fold' : 'girth'].trained
}

/** What helps at a site that is over its mark, beyond its steps (common practice). */
const HELPS: Partial<Record<SiteId, string>> = {
  subscapular: 'mark again with the hand behind the back',
  thigh: 'weight on the other leg, a generous grip, wait for the muscle to slide out',
  suprailiac: 'drop the line from the armpit first; not too far forward',
  midaxillary: 'carry the level of the breastbone round before lifting',
  triceps: 'mark the middle with the elbow bent, measure with the arm hanging',
  abdominal: 'measure the two centimetres, belly relaxed',
  'medial-calf': 'find the greatest girth with the tape first',
}

/** What to do next, in sentences, the most needed first; at most three. */
export function nextSteps(sites: readonly SiteProgress[]): string[] {
  const said = sites
    .filter(({ standing }) => standing === 'beyond' || standing === 'learning')
    .slice(0, 2)
    .map(({ site, now, more }) => {
      const help = HELPS[site] ?? 'mark it again, step by step'
      const tell = more !== null && more > 0 ? `; ${more} more repeats will tell` : ''
      return `${SITES[site].name} ${formatNumber(now.percent ?? 0, 1)} %: ${help}${tell}.`
    })
  const open = sites.find(({ standing, more }) => standing === 'trained' && more !== null && more > 0)
  if (open && said.length < 3)
    said.push(
      `${SITES[open.site].name} looks right at ${formatNumber(open.now.percent ?? 0, 1)} %: ${open.more} more repeats would make it sure.`,
    )
  if (said.length === 0)
    said.push(
      sites.length === 0
        ? 'Read every site twice: errors are learnt from the repeats of every check-in.'
        : 'Every site is within its mark: hold a side-by-side study to know the bias as well.',
    )
  return said
}
