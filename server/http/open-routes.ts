/** Routes that answer without a session. Everything else under /api is closed. */
export const OPEN_ROUTES: readonly string[] = [
  'GET /api/health',
  'GET /api/setup',
  'POST /api/setup',
  'POST /api/sign-in',
]

/** Pages that show without a session. */
export const OPEN_PAGES: readonly string[] = ['/sign-in', '/welcome']
