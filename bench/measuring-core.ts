/** What the measuring screen takes from core: the entry whose size `npm run bench` prints. */
export { composeWith } from '../core/composition/checkin'
export { loadEquations } from '../core/equations/loaders'
export { checkCopied, checkSlip, nextStep, parseFold } from '../core/readings'
export { FOLDS, findProtocol, GIRTHS, PROTOCOLS, SITES } from '../core/sites'
export { formatMass, formatNumber, parseHeight, parseWeight } from '../core/units'
