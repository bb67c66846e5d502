/** One number as a person wrote it, with the unit word that follows it (empty when there is none). */
export interface WrittenNumber {
  value: number
  unit: string
  /** True when the number had a fraction such as 3/4: only inches are written so. */
  fraction: boolean
  /** True when a single comma could be a decimal comma or a thousands mark ("1,234"). */
  ambiguousComma: boolean
  /** Digits after the decimal mark as written ("5.11" has "11"). */
  decimals: string
}

const VULGAR: Record<string, string> = { '½': ' 1/2', '¼': ' 1/4', '¾': ' 3/4', '⅛': ' 1/8', '⅜': ' 3/8', '⅝': ' 5/8' }

const NUMBER = /^(\d+(?:[.,]\d+)?|[.,]\d+)(?:\s+(\d+)\/(\d+))?/
const FRACTION = /^(\d+)\/(\d+)/
const UNIT_WORD = /^\s*([a-z]+|''|["'])?\.?/

function clean(text: string): string {
  return text
    .trim()
    .toLowerCase()
    .replace(/[½¼¾⅛⅜⅝]/g, (sign) => VULGAR[sign] ?? sign)
    .replace(/[’′`´]/g, "'")
    .replace(/[”″“]/g, '"')
    .replace(/\s+/g, ' ')
    .trim()
}

/**
 * Splits what a person wrote ("5 ft 10 1/2 in", "34 3/4", "12,5 kg") into numbers with their unit words.
 * Returns null when anything else stands in the text (a sign, a letter where a number belongs).
 */
export function scanNumbers(text: string): WrittenNumber[] | null {
  let rest = clean(text)
  const found: WrittenNumber[] = []
  while (rest.length > 0) {
    const lone = FRACTION.exec(rest)
    const whole = lone ? null : NUMBER.exec(rest)
    const head = lone?.[0] ?? whole?.[0] ?? ''
    if (head === '') return null
    const written = lone ? '0' : (whole?.[1] ?? '')
    const above = Number(lone?.[1] ?? whole?.[2] ?? 0)
    const below = Number(lone?.[2] ?? whole?.[3] ?? 1)
    if (below === 0) return null
    rest = rest.slice(head.length)
    const word = UNIT_WORD.exec(rest)
    rest = rest.slice(word?.[0].length ?? 0).trim()
    found.push({
      value: Number(written.replace(',', '.')) + above / below,
      unit: word?.[1] ?? '',
      fraction: below !== 1,
      ambiguousComma: /^[1-9]\d{0,2},\d{3}$/.test(written),
      decimals: /[.,](\d+)$/.exec(written)?.[1] ?? '',
    })
  }
  return found.length > 0 ? found : null
}
