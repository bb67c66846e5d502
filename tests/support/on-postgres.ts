import { inject } from 'vitest'

/** Where each test of the project `postgres` finds its server (prepare-postgres.ts). */
const { url, folder } = inject('postgres')
process.env.TEST_POSTGRES = url
process.env.TEST_POSTGRES_FOLDER = folder
