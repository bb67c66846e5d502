import { studyRecord } from '../../../http/studies'
import { defineRoute } from '../../../http/route'

/** A study with everybody in it. */
export default defineRoute({ access: 'coach', proof: 'second' }, studyRecord)
