import { defineEventHandler } from 'h3'
import { streamOf } from '../../../http/live'
import { checkinHeadAt } from '../../../http/params'

/** A running check-in as it happens, as server-sent events: what any screen stores, every other one hears. */
export default defineEventHandler(async (event) => streamOf(event, `checkin:${(await checkinHeadAt(event)).id}`))
