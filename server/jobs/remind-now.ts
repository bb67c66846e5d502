import { useRuntimeConfig } from 'nitropack/runtime'
import { useStore } from '../db/use-database'
import { errorFacts, log } from '../http/log'
import { usePorts } from '../ports'
import { alone } from './alone'
import { remind } from './reminders'

/** Looks for what is due and sends it; one turn at a time. */
let turn: Promise<unknown> = Promise.resolve()
export function remindNow(): Promise<unknown> {
  turn = turn
    .then(useStore)
    .then((store) =>
      alone(store, 'reminders', async () => {
        const { mailFrom, address } = useRuntimeConfig()
        await remind({
          store,
          ports: usePorts(),
          address: address || null,
          from: mailFrom || 'Oak Pinch <no-reply@localhost>',
        })
      }),
    )
    .catch((error: unknown) => log.error({ what: 'reminders', ...errorFacts(error) }))
  return turn
}
