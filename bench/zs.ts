import { openTrial, looksAt, only } from '../core/trials/trial'
import { DOWN_AND_BACK, HAPPENS_EVERY } from '../core/trials/worlds'
const s = only(openTrial({ ...DOWN_AND_BACK, clients: 60, seed: 31 }, ['sum']), c => c % HAPPENS_EVERY === 0)
const seen = looksAt(s, ['sum'])
for (const own of seen.slice(0, 12)) { const l = own.at(-1)!.sum!; console.log(l.verdict, 'odds', l.odds.toFixed(1), 'ch', l.change.toFixed(1), l.low.toFixed(1), l.high.toFixed(1), JSON.stringify(l.standing), own.slice(-6).map(x => `${x.sum!.verdict}:${x.sum!.odds.toFixed(1)}:${x.sum!.change.toFixed(0)}`).join(' ')) }
