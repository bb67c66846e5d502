import { defineEventHandler } from 'h3'
import { challengeFacts } from '../../../http/challenges'

/** A challenge with everybody in it. */
export default defineEventHandler(challengeFacts)
