import { defineEventHandler } from 'h3'
import { clientAt } from '../../../http/params'

export default defineEventHandler(clientAt)
