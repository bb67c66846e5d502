/** Whether this browser makes and gives passkeys here: over https, or on this machine. */
export const canPasskey = () => isSecureContext && 'PublicKeyCredential' in window

/** A passkey was not given: its person changed their mind, or there is none on this device. With a sentence. */
export class PasskeyNotGiven extends Error {}
