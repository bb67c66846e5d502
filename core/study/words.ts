import { TEM_MARKS } from '../error'
import { isFold, SITES } from '../sites'
import { formatNumber } from '../units'
import type { RatioBias } from './agreement'
import { PEOPLE_WANTED, type RepeatSite, type StudyDoubt } from './study'

/** A doubt about a study in a sentence. `nameOf`: how a person of the study is called. */
export function doubtWords(doubt: StudyDoubt, nameOf: (personId: string) => string): string {
  switch (doubt.code) {
    case 'none-finished':
      return 'Nobody has been measured by everybody yet: nothing can be said.'
    case 'few-people':
      return `${doubt.people === 1 ? 'One person' : `${doubt.people} people`}: at least ${PEOPLE_WANTED.least} are wanted, ${PEOPLE_WANTED.accreditation} for an accreditation. The intervals are as wide as that makes them.`
    case 'one-site':
      return 'One site alone says nothing about the others.'
    case 'all-equal':
      return `${SITES[doubt.site].name}: every value is the same. The error lies below what the marks of the instrument show; it is not none.`
    case 'same-minute':
      return `${nameOf(doubt.personId)} was measured twice within a minute: the marks cannot have been drawn anew. Left out.`
    case 'too-soon':
      return `${nameOf(doubt.personId)} was measured again after ${doubt.minutes} minutes: marks and memory may still have been fresh.`
  }
}

/** What one site of a repeat study says, and what to do. */
export function repeatWords({ site, standing, sure, visit }: RepeatSite): string {
  if (!visit || standing === null) return 'Not measured twice.'
  if (visit.belowMarks) return 'Every pair the same: below the marks of the instrument.'
  const marks = TEM_MARKS[isFold(site) ? 'fold' : 'girth']
  const said = {
    trained: `within ${marks.trained} %: a trained hand`,
    learning: `between ${marks.trained} and ${marks.learning} %: learning`,
    beyond: `over ${marks.learning} %: mark it again, step by step`,
  }[standing]
  return sure ? `${said}.` : `${said}; more people would tell for sure.`
}

/** A bias in words: how another hand reads a site. */
export function biasWords(ratio: RatioBias | null): string {
  if (!ratio) return 'Too few measured by both.'
  const percent = (ratio.value - 1) * 100
  const way = percent > 0 ? 'more' : 'less'
  const size = `${formatNumber(Math.abs(percent), 1)} % ${way}`
  if (ratio.low > 1 || ratio.high < 1) return `reads ${size}.`
  return `${size}, too small to be sure of.`
}
