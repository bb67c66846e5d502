/** Colours as a page would give them to its charts. */
export const COLOURS = {
  ink: '#000',
  faded: '#666',
  rule: '#ddd',
  sheet: '#fff',
  fat: '#b46',
  lean: '#264',
  sum: '#746',
  weight: '#654',
  girth: '#467',
}
