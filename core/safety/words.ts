/** Words that speak about the body: a sentence with one of them is not for somebody in neutral mode. */
const ABOUT_THE_BODY =
  /\b(?:weigh\w*|fat|lean|percent\w*|kilos?|pounds?|folds?|skinfolds?|waist|hips?|girths?|bmi|mass|muscle|thin\w*|slim\w*|calori\w*|kcal|diet\w*|body|bodies|sizes?|loss|lost|los(?:e|es|ing)|gain\w*)\b/i

/**
 * What of a coach's words somebody in neutral mode may read: every sentence with a figure or about the body is left out.
 * @example withoutBody('Five calm rows. The sum is down 3 mm.') // 'Five calm rows.'
 */
export function withoutBody(words: string): string {
  return words
    .split(/(?<=[.!?])\s+|\n+/)
    .filter((sentence) => !/[\d½¼¾%]/.test(sentence) && !ABOUT_THE_BODY.test(sentence))
    .join(' ')
    .trim()
}
