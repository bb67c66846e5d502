import type { Measured, SpanEnd } from '../composition/end-figures'
import { ASSUMED_ERRORS, type ErrorModel } from '../error/model'
import { figureAt } from './figures'
import { figureTerms, foldsAmong, type FigureId } from './weights'

/** What one check-in says, each with its measuring error. Percent in points, masses in kg, the sum in mm. */
export interface EndFigures {
  weight: Measured | null
  percent: Measured | null
  fat: Measured | null
  lean: Measured | null
  sum: Measured | null
}

/** Figures of ends that have been asked for already: a dragged jaw asks for the same ones again and again. */
const known = new WeakMap<SpanEnd, { model: ErrorModel; figures: EndFigures }>()

/** Everything one end of a span says, with the error of its measuring as the model takes it (not of the level). */
export function endFigures(end: SpanEnd, model: ErrorModel = ASSUMED_ERRORS): EndFigures {
  const before = known.get(end)
  if (before?.model === model) return before.figures
  const terms = figureTerms([end], end, model)
  const complete = end.result.sumMm !== null
  const summed = complete ? foldsAmong(end.result.session.sites.map(({ site }) => site)) : []
  const at = (figure: FigureId) => figureAt(figure, end, terms, { summed, model })
  const figures = {
    weight: at('weight'),
    percent: at('percent'),
    fat: at('fat'),
    lean: at('lean'),
    sum: complete ? at('sum') : null,
  }
  known.set(end, { model, figures })
  return figures
}
