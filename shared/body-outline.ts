import { smoothCurve, type Point } from '../core/sites/curve'

/**
 * Half an outline of a standing body, from the crown down the outside of the arm, up its inside, down the trunk and
 * leg and up to the crotch: distance from the midline, height. Calm, of no sex, drawn for this product.
 */
const HALF: readonly (readonly [number, number])[] = [
  [0, 9],
  [9, 11],
  [15.5, 18.5],
  [17.5, 30],
  [16.4, 43],
  [12.8, 55],
  [10.2, 62],
  [9.6, 70],
  [11.4, 77.5],
  [19, 83],
  [31, 87.5],
  [42, 92.5],
  [49.5, 101],
  [53, 114],
  [54.4, 132],
  [56.2, 152],
  [58, 171],
  [60.6, 184],
  [63.2, 200],
  [65.6, 220],
  [67, 238],
  [69.6, 248],
  [72, 262],
  [71, 276],
  [67.4, 285],
  [63.8, 283],
  [62.4, 272],
  [61, 260],
  [59.6, 244],
  [56.2, 224],
  [52, 202],
  [49.4, 186],
  [46.6, 168],
  [43.2, 148],
  [40, 132.5],
  [38.6, 140],
  [37.4, 152],
  [35.2, 168],
  [33, 182],
  [32, 194],
  [32.8, 206],
  [35.2, 220],
  [37.8, 236],
  [39, 252],
  [38.4, 274],
  [36, 298],
  [32.6, 318],
  [29.6, 334],
  [29, 344],
  [30.8, 360],
  [30.4, 374],
  [27.2, 396],
  [23.6, 416],
  [22.6, 430],
  [25, 441],
  [26, 448],
  [18, 451.5],
  [11, 449],
  [10.6, 438],
  [11.6, 424],
  [10.8, 404],
  [9.6, 384],
  [9.2, 366],
  [10, 350],
  [9.4, 338],
  [7, 320],
  [4.6, 298],
  [2.6, 276],
  [0, 259],
]

const MIDLINE = 100

const right = HALF.map(([dx, y]) => ({ x: MIDLINE + dx, y }))
const left = HALF.slice(1, -1)
  .reverse()
  .map(([dx, y]) => ({ x: MIDLINE - dx, y }))

/** The body's outline as an SVG path. */
export const BODY_OUTLINE = smoothCurve([...right, ...left], true)

/** Light lines inside the outline: landmarks a coach looks for. */
export const INNER_LINES = {
  front: [
    'M84 90C88 95 95 97 100 97.5C105 97 112 95 116 90',
    'M72 149C78 155 90 155 99 150M101 150C110 155 122 155 128 149',
    'M78 226C82 236 90 246 97 252M122 226C118 236 110 246 103 252',
    'M76 334C79 338 86 338 89 334M111 334C114 338 121 338 124 334',
  ],
  back: [
    'M100 92V216',
    'M74 112C72 128 76 146 86 154C89 146 90 130 88 118M126 112C128 128 124 146 114 154C111 146 110 130 112 118',
    'M100 222V254M72 262C80 268 92 266 99 258M101 258C108 266 120 268 128 262',
    'M76 340C79 337 86 337 89 340M111 340C114 337 121 337 124 340',
  ],
} as const

/** The navel, shown on the front. */
export const NAVEL: Point = { x: MIDLINE, y: 206 }

export const FIGURE_WIDTH = 200
export const FIGURE_HEIGHT = 460
