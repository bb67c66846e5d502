import { looksAt, openTrial, type Trial } from '../core/trials/trial'
import { SMALL_STUDIOS, SMALL_WORLD, UNCHANGED, UNCHANGED_WEIGHTS, isNoisy, isBadHands } from '../core/trials/worlds'
const N = Number(process.env.N ?? 150), LOOKS = Number(process.env.LOOKS ?? 24)
const [part, of] = (process.env.PART ?? '0/1').split('/').map(Number) as [number, number]
const THR = [7, 8, 10, 12, 14, 17, 20, 28]
const rows = (seen: any[], fig: string) => {
  // real at doubled share: odds x 2
  const most = seen.map((own: any[]) => Math.max(0, ...own.filter(l => l[fig]?.verdict === 'real').map(l => l[fig].odds)))
  return THR.map(t => (100 * most.filter(m => m >= t).length / most.length).toFixed(1).padStart(6)).join('')
}
const fresh = Number(process.env.SEED ?? 5000)
let k = 0
const one = (name: string, run: () => void) => { if (k++ % of === part) { const t = performance.now(); run(); console.log('   ', name, ((performance.now() - t) / 1000).toFixed(0), 's') } }
console.log('thr'.padEnd(48), THR.join('   '))
for (const world of UNCHANGED) one(world.name, () => {
  const fig = world.tape ? 'percent' : 'sum'
  const seen = looksAt(openTrial({ ...world, clients: N, looks: LOOKS, seed: fresh + k } as Trial, [fig]), [fig], 2)
  console.log(world.name.padEnd(48), rows(seen, fig))
  if (world.name === 'one in ten noisy') console.log('  of those'.padEnd(48), rows(seen.filter((_, c) => isNoisy(c)), fig))
  if (world.name.startsWith('two hands')) console.log('  of the bad'.padEnd(48), rows(seen.filter((_, c) => isBadHands(c)), fig))
})
for (const world of UNCHANGED_WEIGHTS) one(world.name, () => console.log(world.name.padEnd(48), rows(looksAt(openTrial({ ...world, clients: N, looks: LOOKS, seed: fresh + k } as Trial, ['weight']), ['weight'], 2), 'weight')))
for (const size of SMALL_STUDIOS) one(`studios of ${size}`, () => {
  const all = Array.from({ length: Math.ceil(N / size) }, (_, i) => looksAt(openTrial({ ...SMALL_WORLD, clients: size, looks: LOOKS, seed: fresh + 7 * i + size } as Trial, ['sum']), ['sum'], 2)).flat()
  console.log(`studios of ${size}, lasting .7`.padEnd(48), rows(all, 'sum'))
})
