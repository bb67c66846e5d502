import type { ZxcvbnFactory } from '@zxcvbn-ts/core'
import pLimit from 'p-limit'
import { failure } from './failure'

/** Of zxcvbn's 0 to 4: beyond ten to the eighth guesses. */
const LEAST_SCORE = 3
/** Letters a password needs beside names everybody knows. */
const LEAST_OF_ITS_OWN = 8

let strength: Promise<ZxcvbnFactory> | undefined

/** Ranking its words takes half a second of computation: for the first new password there is, never at a start or a sign-in. */
function strengthOf(): Promise<ZxcvbnFactory> {
  return (strength ??= Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
    import('@zxcvbn-ts/language-en'),
  ]).then(
    ([core, common, english]) =>
      new core.ZxcvbnFactory({
        dictionary: { ...common.dictionary, ...english.dictionary },
        graphs: common.adjacencyGraphs,
        translations: english.translations,
      }),
  ))
}

/** Why a password is too easily guessed, as a sentence; null when it is not. `about`: what everybody knows of the person. */
export async function passwordWeakness(password: string, about: readonly string[] = []): Promise<string | null> {
  const known = about.flatMap((words) => words.toLowerCase().split(/[\s@.]+/)).filter((word) => word.length > 2)
  const left = known.reduce((text, word) => text.replaceAll(word, ''), password.toLowerCase())
  if (left.length < LEAST_OF_ITS_OWN && left.length < password.length) {
    return 'This password is made of names everybody here knows. Four words that do not belong together do better.'
  }
  const { score, feedback } = (await strengthOf()).check(password, [...known, 'oak', 'pinch'])
  if (score >= LEAST_SCORE) return null
  return `This password is easily guessed. ${feedback.warning || 'Four or more words that do not belong together are hard to guess and easy to keep.'}`
}

/** Throws 422 at the field when a new password is too easily guessed. */
export async function refuseWeak(password: string, about: readonly string[], field = 'password'): Promise<void> {
  const sentence = await passwordWeakness(password, about)
  if (sentence) throw failure(422, sentence, [{ field, message: sentence }])
}

/** Each hash takes 128 MB while it is made: two at a time. */
const turns = pLimit(2)

/** A password as it is stored. */
export function hashInTurn(password: string): Promise<string> {
  return turns(() => hashPassword(password))
}

let decoy: Promise<string> | undefined

/** Whether a password is the one stored; without one stored it takes as long and is not. */
export async function isRight(stored: string | null, password: string): Promise<boolean> {
  // Whoever was invited and has chosen none yet has no password.
  const usable = stored?.startsWith('$') ? stored : null
  const compared = usable ?? (await (decoy ??= hashInTurn(crypto.randomUUID())))
  const right = await turns(() => verifyPassword(compared, password))
  return right && usable !== null
}
