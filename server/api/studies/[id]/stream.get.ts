import { defineEventHandler } from 'h3'
import { streamOf } from '../../../http/live'
import { studyAt } from '../../../http/studies'

/** A study as it goes on: every tablet of a group hears that a turn was started or done, never what was read. */
export default defineEventHandler(async (event) => streamOf(event, `study:${(await studyAt(event)).id}`))
