/** What the measuring screen takes from core: the entry whose size `npm run bench` prints. */
export { composeWith } from '../core/composition/checkin'
export { checkCopied, checkSlip, nextStep, parseFold } from '../core/readings'
export { findProtocol, PROTOCOLS } from '../core/protocols'
export { FOLDS, GIRTHS, SITES } from '../core/sites'

/** Loaded while the facts of the check-in are on their way. */
export const equationFile = () => import('../core/equations/registry')
export { formatMass, formatNumber, parseHeight, parseWeight } from '../core/units'
