const PASSWORD = 'heron-lantern-quilt'

/**
 * Sets up a studio and its coaches through the API; all are signed in.
 * @param {() => (method: string, path: string, body?: unknown) => Promise<any>} arrive somebody new at a device, who sends
 * @param {number} count
 */
export async function manyCoaches(arrive, count) {
  const lead = arrive()
  await lead('POST', '/api/setup', {
    studioName: 'Reedwater',
    name: 'Runa Bexley',
    email: 'runa@reedwater.example',
    password: PASSWORD,
    massUnit: 'kg',
    lengthUnit: 'cm',
    timeZone: 'UTC',
  })
  const coaches = []
  for (let i = 0; i < count; i += 1) {
    const email = `coach${i}@reedwater.example`
    const { link } = await lead('POST', '/api/staff', { name: `Coach ${i}`, email, role: 'coach' })
    const coach = arrive()
    await coach('POST', '/api/password-reset', { token: link.split('#')[1], password: PASSWORD })
    await coach('POST', '/api/sign-in', { email, password: PASSWORD })
    coaches.push(coach)
  }
  return { lead, coaches }
}
