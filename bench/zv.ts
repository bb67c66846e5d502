import { looksAt, openTrial, medianOf, type Trial } from '../core/trials/trial'
import { UNCHANGED, UNCHANGED_WEIGHTS, LOSING, NO_DAY, isNoisy } from '../core/trials/worlds'
const N = Number(process.env.N ?? 200)
const THR = [8, 10, 12, 14, 17]
const out: string[] = []
for (const l of LOSING) {
  const seen = looksAt(openTrial({ ...l, world: NO_DAY, clients: N, seed: 4242, looks: l.weeksApart === 1 ? 17 : l.weeksApart === 2 ? 11 : 7 } as Trial, ['sum']), ['sum'], 2)
  out.push(l.name + ' ' + THR.map(t => { const f = seen.map(own => { const p = own.findIndex(({sum}) => sum && sum.verdict === 'real' && sum.odds >= t); return p < 0 ? 20 : p + 2 }); return `${t}: ${medianOf(f)} ${(f.reduce((a, b) => a + b, 0) / f.length).toFixed(2)}` }).join('  '))
}
for (const name of ['noise lasting .93 a week', 'noise lasting .85 a week in one of four', 'noise lasting .7 a week', 'noise lasting .6 a week', 'one in ten noisy', 'heavy day effect of 5 %', 'weight lasting .85 a week']) {
  const w = [...UNCHANGED, ...UNCHANGED_WEIGHTS].find(x => x.name === name)!
  const fig = name.startsWith('weight') ? 'weight' as const : 'sum' as const
  const seen = looksAt(openTrial({ ...w, clients: N, looks: 24, seed: 4243 } as Trial, [fig]), [fig], 2)
  const most = seen.map(own => Math.max(0, ...own.filter(x => x[fig]?.verdict === 'real').map(x => x[fig]!.odds)))
  out.push(name.padEnd(42) + THR.map(t => (100 * most.filter(m => m >= t).length / most.length).toFixed(1).padStart(7)).join('') + (name.includes('ten') ? ' noisy ' + THR.map(t => (100 * most.filter((m, c) => isNoisy(c) && m >= t).length / (most.length / 10)).toFixed(0)).join(' ') : ''))
}
console.log(process.env.TAG, '\n  ' + out.join('\n  '))
