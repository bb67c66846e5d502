import { challengeFacts } from '../../../http/challenges'
import { defineRoute } from '../../../http/route'

/** A challenge with everybody in it. */
export default defineRoute({ access: 'coach', proof: 'second' }, challengeFacts)
