import { describe, expect, it } from 'vitest'
import { parseIntake, readIntakes } from '../../core/energy'

const today = '2026-11-26'

describe('a day’s intake as typed', () => {
  it.each([
    ['2150', 2150],
    ['2,150', 2150],
    ['2.150 kcal', 2150],
    [' 2 150 ', 2150],
    // 9,000 kJ by 4.184.
    ['9,000 kJ', 2151],
  ])('%s', (text, kcal) => {
    expect(parseIntake(text)).toEqual({ kcal })
  })

  it.each([
    ['200', 'is it the whole day?'],
    ['20,000', 'More than 10,000 kcal'],
    ['', 'a whole number of kcal'],
    ['much', 'a whole number of kcal'],
    ['-2000', 'a whole number of kcal'],
    ['2150.5', 'a whole number of kcal'],
  ])('%s gets a sentence', (text, sentence) => {
    const parsed = parseIntake(text)
    expect('problem' in parsed && parsed.problem).toContain(sentence)
  })
})

describe('a pasted log', () => {
  it('reads dates and amounts as people write them', () => {
    const { lines, askOrder } = readIntakes(
      'day\tkcal\n2026-11-20  2150\n21.11.2026; 2,310 kcal\n22 Nov 2026, 9000 kJ\n2026-11-23 -',
      { today },
    )
    expect(askOrder).toBe(false)
    expect(lines.map(({ number, day, kcal }) => [number, day, kcal])).toEqual([
      [2, '2026-11-20', 2150],
      [3, '2026-11-21', 2310],
      [4, '2026-11-22', 2151],
      [5, '2026-11-23', null],
    ])
    expect(lines[3]?.note).toContain('left out')
    expect(lines.every(({ problem }) => problem === null)).toBe(true)
  })

  it('asks which part of a slashed date is the day, unless a line tells', () => {
    const read = (text: string, order?: 'day-first') => readIntakes(text, { today, ...(order ? { order } : {}) })
    expect(read('3/4/2026 2000')).toMatchObject({
      askOrder: true,
      lines: [{ problem: expect.stringContaining('day or the month') }],
    })
    expect(read('3/4/2026 2000', 'day-first').lines[0]?.day).toBe('2026-04-03')
    expect(read('3/4/2026 2000\n3/25/2026 2100').lines.map(({ day }) => day)).toEqual(['2026-03-04', '2026-03-25'])
  })

  it('says at the line what is wrong', () => {
    const { lines } = readIntakes(
      'yesterday 2000\n2026-13-40 2000\n2026-11-27 2000\n2026-11-01 2000\n2026-11-02 2000\n2026-11-02 2100\n2026-11-03 90',
      { today, taken: new Set(['2026-11-01']) },
    )
    expect(lines.map(({ problem }) => problem?.split(':')[0] ?? null)).toEqual([
      'No date found',
      'There is no such day.',
      'This day is still to come.',
      'This day is logged already',
      null,
      'Line 5 is of the same day',
      'Under 500 kcal in a day',
    ])
  })
})
