/** The page's own colours, read from its stylesheet so that light and dim charts match their page. */
export interface ChartColours {
  ink: string
  faded: string
  rule: string
  sheet: string
  fat: string
  lean: string
  sum: string
  weight: string
  girth: string
}

export function chartColours(): ChartColours {
  const style = getComputedStyle(document.documentElement)
  const read = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    ink: read('ink'),
    faded: read('faded'),
    rule: read('rule'),
    sheet: read('sheet'),
    fat: read('fat'),
    lean: read('lean'),
    sum: read('sum'),
    weight: read('weight'),
    girth: read('girth'),
  }
}

export const CHART_FONT = 'Atkinson Hyperlegible Next Variable'
export const FIGURE_FONT = 'Atkinson Hyperlegible Mono Variable'
