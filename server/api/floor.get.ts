import { subDays } from 'date-fns'
import { defineEventHandler } from 'h3'
import { useDatabase } from '../db/use-database'
import { signedInAs } from '../http/signed-in'
import { findFloor } from '../repositories/checkins'

/** Usual cadence for people who are not preparing for a contest: four to six weeks (common practice). */
const DUE_AFTER_DAYS = 28

export default defineEventHandler(async (event) =>
  findFloor(await useDatabase(), signedInAs(event), subDays(new Date(), DUE_AFTER_DAYS).toISOString()),
)
