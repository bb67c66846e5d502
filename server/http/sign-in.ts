import { getRequestProtocol, type H3Event } from 'h3'

/** Seals a session for this person into the cookie; marked Secure whenever the request came over https. */
export async function signIn(event: H3Event, staffId: string): Promise<void> {
  const secure = getRequestProtocol(event, { xForwardedProto: true }) === 'https'
  await replaceUserSession(event, { user: { staffId } }, { cookie: { secure, sameSite: 'lax', httpOnly: true } })
}
