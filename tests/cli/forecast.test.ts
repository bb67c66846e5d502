import { spawn } from 'node:child_process'
import { once } from 'node:events'
import Papa from 'papaparse'
import { beforeAll, describe, expect, it } from 'vitest'
import { bundled } from '../../scripts/lib/bundle.mjs'
import { ROOT } from '../../scripts/lib/prepare.mjs'

const HEADER = 'id,sex,age_years,height_cm,weight_kg,fat_kg,activity,intake_change_kcal,days'

let command = ''
beforeAll(async () => {
  command = await bundled('cli/forecast.ts')
})

async function run(...rows: string[]) {
  const child = spawn(process.execPath, [command], { cwd: ROOT })
  let [out, err] = ['', '']
  child.stdout.on('data', (chunk) => (out += chunk))
  child.stderr.on('data', (chunk) => (err += chunk))
  child.stdin.on('error', () => undefined)
  child.stdin.end(rows.join('\n'))
  const [code] = (await once(child, 'close')) as [number]
  const { data } = Papa.parse<Record<'id' | 'day' | 'fat_kg' | 'lean_kg' | 'weight_kg' | 'scale_kg', string>>(out, {
    header: true,
    skipEmptyLines: true,
  })
  return { code, out, err, rows: data }
}

/** The model written apart: fine steps of Euler’s, resting by Mifflin-St Jeor for a man of 40, 180 cm. */
function euler(weight: number, fat: number, activity: number, change: number, days: number) {
  const r = 10 * weight + 6.25 * 180 - 5 * 40 + 5
  const e0 = activity * r
  const delta = ((1 - 0.1) * activity - 1) * (r / weight)
  const k = e0 - 3.1 * fat - 22 * (weight - fat) - delta * weight
  const c = (10.4 * 1807) / 9440
  let [f, l, at] = [fat, weight - fat, 0]
  const dt = 1 / 200
  for (let i = 0; i < days * 200; i += 1) {
    const p = c / (c + f)
    const balance =
      (e0 + change - (k + 3.1 * f + 22 * l + delta * (f + l) + 0.1 * change + at)) /
      (1 + (180 * (1 - p)) / 9440 + (230 * p) / 1807)
    at += (dt * (0.14 * change - at)) / 14
    f += (dt * (1 - p) * balance) / 9440
    l += (dt * p * balance) / 1807
  }
  return { f, l }
}

describe('npm run forecast', () => {
  it('agrees with fine steps written apart', async () => {
    const { code, rows } = await run(HEADER, 'ada,male,40,180,90,25,1.6,-600,400', 'ivo,m,40,180,90,25,1.4,300,730')
    expect(code).toBe(0)
    for (const [id, activity, change, day] of [
      ['ada', 1.6, -600, 364],
      ['ada', 1.6, -600, 400],
      ['ivo', 1.4, 300, 730],
    ] as const) {
      const row = rows.find((one) => one.id === id && Number(one.day) === day)
      const { f, l } = euler(90, 25, activity, change, day)
      expect(Number(row?.fat_kg)).toBeCloseTo(f, 2)
      expect(Number(row?.lean_kg)).toBeCloseTo(l, 2)
      expect(Number(row?.weight_kg)).toBeCloseTo(Number(row?.fat_kg) + Number(row?.lean_kg), 9)
    }
  })

  it('writes day 0, every seventh, the ends of three years and the last', async () => {
    const { rows, out } = await run(HEADER, '"Osk, Maren",female,34,174,71,15,1.5,-100,1100')
    expect(out.split('\n')[0]).toBe('id,day,fat_kg,lean_kg,weight_kg,glycogen_kg,fluid_kg,scale_kg')
    const days = rows.map(({ day }) => Number(day))
    expect(days.slice(0, 3)).toEqual([0, 7, 14])
    for (const day of [365, 730, 1095, 1100]) expect(days).toContain(day)
    expect(days).toHaveLength(Math.floor(1100 / 7) + 1 + 4)
    expect([...days].sort((a, b) => a - b)).toEqual(days)
    expect(rows[0]).toMatchObject({ id: 'Osk, Maren', fat_kg: '15', lean_kg: '56', scale_kg: '71' })
    // By the second week the water of eating less is gone: the scale shows less than fat and lean together.
    expect(Number(rows[2]?.scale_kg)).toBeLessThan(Number(rows[2]?.weight_kg) - 0.05)
  })

  it('takes columns in any order and refuses bad rows by line; the rest go on', async () => {
    const { code, rows, err } = await run(
      'days,id,sex,age_years,height_cm,weight_kg,fat_kg,intake_change_kcal,activity',
      '14,a,female,34,174,71,15,-100,0',
      '14,b,female,34,174,71,80,-100,1.5',
      '14,c,robot,34,174,71,15,-100,1.5',
      '14,d,female,34,174,71,15,some,1.5',
      '14,e,female,34,174,71,15,-100,1.5',
    )
    expect(code).toBe(0)
    expect(new Set(rows.map(({ id }) => id))).toEqual(new Set(['e']))
    expect(err.trim().split('\n')).toEqual([
      'line 2: activity has to lie between 1 and 3: 0',
      'line 3: fat_kg is no less than weight_kg',
      'line 4: unknown sex: robot',
      'line 5: intake_change_kcal is not a number: some',
    ])
  })

  it('says when a body would run out, and needs its header', async () => {
    const { rows, err } = await run(HEADER, 'thin,male,40,180,60,4,1.5,-2500,700')
    expect(err).toContain('line 2: fat or lean would run out before day')
    expect(rows.length).toBeGreaterThan(1)
    const without = await run('id,sex')
    expect(without.code).toBe(2)
    expect(without.err).toContain('Missing column in the header: age_years')
  })
})
