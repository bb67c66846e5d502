import { expose } from 'comlink'
import { forecast, type ForecastStart, type IntakePlan } from '#core/energy'
import { seededRandom } from '#core/simulate'

const api = {
  /** A plan's course with its band, on some days; the same every time. */
  forecast: (start: ForecastStart, plan: IntakePlan, days: number[]) =>
    forecast(start, plan, days, seededRandom(20261126), 400),
}

export type ForecastWorker = typeof api

expose(api)
