import { join } from 'node:path'
import { minutesToMilliseconds } from 'date-fns'
import { defineNitroPlugin, useRuntimeConfig } from 'nitropack/runtime'
import { dataFolder } from '../db/use-database'
import { remindNow } from '../jobs/remind-now'
import { setPorts } from '../ports'
import { folderMail, smtpMail } from '../ports/mail'

/** How often it is looked what is due. */
const EVERY_MS = minutesToMilliseconds(5)

export default defineNitroPlugin((nitro) => {
  const { smtpUrl } = useRuntimeConfig()
  setPorts({ mail: smtpUrl ? smtpMail(smtpUrl) : folderMail(join(dataFolder(), 'mail')) })
  const timer = setInterval(() => void remindNow(), EVERY_MS)
  timer.unref()
  nitro.hooks.hook('close', () => clearInterval(timer))
})
