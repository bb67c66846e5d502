/**
 * Age in completed years on a day, as the published equations and their charts count it.
 * @param birthDate ISO date, YYYY-MM-DD
 * @param onDate ISO date or instant
 * @example ageInYears('1992-11-24', '2026-11-23') // 33
 */
export function ageInYears(birthDate: string, onDate: string): number {
  const [year = NaN, month = NaN, day = NaN] = birthDate.slice(0, 10).split('-').map(Number)
  const [nowYear = NaN, nowMonth = NaN, nowDay = NaN] = onDate.slice(0, 10).split('-').map(Number)
  const hadBirthday = nowMonth > month || (nowMonth === month && nowDay >= day)
  return nowYear - year - (hadBirthday ? 0 : 1)
}
