import { startAuthentication, startRegistration } from '@simplewebauthn/browser'
import type { PasskeyInput, PasskeyRecord, ProvedByPasskey } from '#shared/schemas/passkey'
import { access, own } from '~/calls'
import { PasskeyNotGiven } from '~/passkey-support'

type CreationOptions = Parameters<typeof startRegistration>[0]['optionsJSON']
type RequestOptions = Parameters<typeof startAuthentication>[0]['optionsJSON']

const isCancelled = (error: unknown) =>
  error instanceof Error && /NotAllowedError|AbortError|InvalidStateError/.test(error.name)

async function given<Answer>(ask: () => Promise<Answer>, sentence: string): Promise<Answer> {
  try {
    return await ask()
  } catch (error) {
    if (isCancelled(error)) throw new PasskeyNotGiven(sentence, { cause: error })
    throw error
  }
}

/** Makes a passkey on this device and puts it on one's account. @throws PasskeyNotGiven */
export async function makePasskey(name: string): Promise<PasskeyRecord[]> {
  const optionsJSON = (await own.beginPasskey()) as CreationOptions
  const made = await given(
    () => startRegistration({ optionsJSON }),
    'No passkey was made: it was left, or this device holds one for this account already.',
  )
  return own.addPasskey({ name, made: made as unknown as PasskeyInput['made'] })
}

async function prove(options: unknown): Promise<ProvedByPasskey> {
  const proof = await given(
    () => startAuthentication({ optionsJSON: options as RequestOptions }),
    'No passkey was given. Please try again, or use your password.',
  )
  return proof as unknown as ProvedByPasskey
}

/** What signs in with a passkey of this device. @throws PasskeyNotGiven */
export const passkeyForSignIn = async () => prove(await access.beginPasskey())

/** Confirms by passkey who it is. @throws PasskeyNotGiven */
export async function confirmByPasskey(): Promise<void> {
  await own.confirm({ passkey: await prove(await own.beginConfirm()) })
}
