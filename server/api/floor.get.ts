import { subDays } from 'date-fns'
import { defineEventHandler } from 'h3'
import { CADENCE_DAYS } from '../../core/schedule'
import { useDatabase } from '../db/use-database'
import { signedInAs } from '../http/signed-in'
import { findFloor } from '../repositories/checkins'

export default defineEventHandler(async (event) =>
  findFloor(await useDatabase(), signedInAs(event), subDays(new Date(), CADENCE_DAYS).toISOString()),
)
