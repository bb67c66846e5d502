import { expose } from 'comlink'
import { lookAgainAndAgain } from '#core/trials'

const api = { look: lookAgainAndAgain }

export type LookingWorker = typeof api

expose(api)
