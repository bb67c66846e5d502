import { ensureTemplates } from '../../scripts/lib/template.mjs'

/** Before any test that starts the application: data folders to copy. */
export default ensureTemplates
