import { clientAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'

export default defineRoute({ access: 'coach', proof: 'second', looked: 'client' }, clientAt)
