import { streamOf } from '../../../http/live'
import { studyAt } from '../../../http/studies'
import { defineRoute } from '../../../http/route'

/** A study as it goes on: every tablet of a group hears that a turn was started or done, never what was read. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) =>
  streamOf(event, `study:${(await studyAt(event)).id}`),
)
