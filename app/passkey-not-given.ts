/** A passkey was not given: its person changed their mind, or there is none on this device. With a sentence. */
export class PasskeyNotGiven extends Error {}
