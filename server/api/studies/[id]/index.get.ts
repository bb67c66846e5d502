import { defineEventHandler } from 'h3'
import { studyRecord } from '../../../http/studies'

/** A study with everybody in it. */
export default defineEventHandler(studyRecord)
