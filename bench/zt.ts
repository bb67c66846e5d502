import { openTrial, type Trial } from '../core/trials/trial'
import { LOSE_THEN_HOLD, DOWN_AND_BACK, HAPPENS_EVERY, LOSING, NO_DAY, STEADY_LOSS } from '../core/trials/worlds'
import { saidUnasked, chosenShare, followLooks } from '../core/following'
import { ASSUMED_WORLD } from '../core/simulate/world'
const N = Number(process.env.N ?? 120)
for (const [name, trial] of [["lose then hold", { ...LOSE_THEN_HOLD }], ["back", DOWN_AND_BACK], ['lose then hold, no day', { ...LOSE_THEN_HOLD, world: NO_DAY }]] as [string, Trial][]) {
  const s = openTrial({ ...trial, clients: N, seed: 31 }, ['sum'])
  const t = performance.now()
  const verd: Record<string, number> = {}, since: Record<string, number> = {}, ever: Record<string,number> = {}
  let n = 0
  s.ends.forEach((own, c) => {
    if ((name.startsWith("lose")||name==="back") && c % HAPPENS_EVERY) return
    n++
    const looks = followLooks(own, ['sum'], { noisesAt: k => s.noisesAt(c, k) })
    const v = looks.at(-1)!.sum!.verdict; verd[v] = (verd[v] ?? 0) + 1
    for (const k of new Set(looks.map(l => l.sum?.verdict ?? ''))) ever[k] = (ever[k] ?? 0) + 1
    const u = saidUnasked(own, { start: 0, share: chosenShare(1), noises: s.noisesAt(c, own.length - 1) })
    const w = u.steadySince ? Math.round((Date.parse(u.steadySince) - Date.parse(own[0]!.facts.startedAt)) / 6.048e8) : 'none'
    since[w] = (since[w] ?? 0) + 1
  })
  console.log(name, n, 'last', JSON.stringify(verd), 'ever', JSON.stringify(ever), 'steady since week', JSON.stringify(since), ((performance.now() - t) / n).toFixed(0), 'ms each')
}
