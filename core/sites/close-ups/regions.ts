import type { Pair, Region } from './close-up'

/** Points as SVG writes them: across and down, mm. */
function pairs(written: string): Pair[] {
  return written.split(' ').map((one): Pair => {
    const [x = 0, y = 0] = one.split(',').map(Number)
    return [x, y]
  })
}

/** A half outline and its mirror image about a midline, as one shape. */
function bothSides(width: number, half: readonly Pair[]): Pair[] {
  return [...half, ...half.map(([x, y]): Pair => [width - x, y]).reverse()]
}

const ARM_BACK: Region = {
  view: 'Upper arm from behind',
  width: 250,
  height: 430,
  room: 60,
  shapes: [
    pairs('76,138 72,168 65,220 61,300 62,380 66,460 70,560 -150,560 -150,-20 -95,-5'),
    pairs(
      '-90,0 -30,8 30,20 72,29 112,38 150,56 178,92 191,142 189,205 181,262 172,316 166,350 170,382 178,424 182,470 186,560 108,560 104,470 100,424 99,388 97,352 92,316 86,262 80,208 77,164 76,138',
    ),
  ],
  lines: [
    pairs('118,330 124,322 136,320 146,324 150,334'),
    pairs('108,176 112,226 118,270'),
    pairs('160,150 158,200 152,250'),
  ],
}

const mirrored = ({ width, shapes, lines, ...rest }: Region, view: string): Region => ({
  ...rest,
  view,
  width,
  shapes: shapes.map((shape) => shape.map(([x, y]): Pair => [width - x, y])),
  lines: lines.map((line) => line.map(([x, y]): Pair => [width - x, y])),
})

const UPPER_TRUNK_HALF: readonly Pair[] = pairs(
  '196,-30 194,0 180,26 130,40 78,54 44,84 30,132 24,190 18,260 16,360 14,460 64,460 66,360 70,280 82,210 96,176 102,200 106,250 112,300 116,360 118,470',
)

const TRUNK_HALF: readonly Pair[] = pairs('88,-30 96,30 106,90 110,122 104,160 90,204 70,260 58,318 54,372 58,500')

const LEG_FRONT: readonly Pair[] = pairs(
  '44,-30 40,20 36,70 38,120 46,190 58,260 66,310 70,344 62,374 66,396 56,424 44,450 36,560 150,560 140,450 142,420 134,396 140,368 130,340 132,300 142,240 154,180 160,130 158,80 150,30 148,-30',
)

/** Parts of the body as close-ups show them, mm. Seen from the front the client's right is on the left; from behind on the right. */
export const REGIONS = {
  'arm-back': ARM_BACK,
  'arm-front': {
    ...mirrored(ARM_BACK, 'Upper arm from the front'),
    lines: [
      pairs('96,344 108,350 124,350 138,342'),
      pairs('136,150 146,200 142,262 132,310'),
      pairs('88,130 82,190 88,258 100,308'),
    ],
  },
  chest: {
    view: 'Chest from the front',
    width: 290,
    height: 250,
    shapes: [
      pairs(
        '420,-40 330,-36 246,-24 214,2 150,20 92,36 52,62 30,108 20,170 14,250 10,380 58,380 62,290 66,230 74,170 84,122 92,160 100,210 104,270 106,390 420,390',
      ),
    ],
    lines: [
      pairs('84,122 96,96 118,70'),
      pairs('100,196 130,214 176,216 214,200'),
      pairs('236,40 236,120 235,210'),
      pairs('120,34 170,44 226,40'),
    ],
  },
  flank: {
    view: 'Trunk from its right side, the front to the right',
    width: 320,
    height: 380,
    room: 60,
    shapes: [
      pairs(
        '66,-30 60,30 56,80 62,140 78,200 86,246 74,296 54,344 48,420 232,420 236,350 246,296 250,250 242,206 246,160 258,104 258,60 246,20 236,-30',
      ),
      pairs('104,-30 112,10 124,44 150,64 182,58 210,40 240,10 268,-30'),
    ],
    lines: [
      pairs('84,312 108,290 146,282 184,294 214,320 224,340'),
      pairs('164,100 196,130 232,156'),
      pairs('100,150 150,190 206,206'),
    ],
  },
  'hip-front': {
    view: 'Right side of the hip from the front',
    width: 290,
    height: 360,
    shapes: [pairs('52,-30 56,40 66,100 64,150 50,200 36,254 26,310 22,380 20,500 440,500 440,-80')],
    lines: [
      pairs('46,222 64,216 84,232 100,262 104,284'),
      pairs('104,292 150,330 190,356'),
      pairs('208,-10 206,90 205,170'),
    ],
  },
  belly: {
    view: 'Belly from the front',
    width: 250,
    height: 200,
    shapes: [pairs('46,-30 58,20 62,60 54,110 40,160 30,210 24,320 400,320 400,-90')],
    lines: [pairs('178,-10 177,30 177,74'), pairs('177,126 176,160 176,210'), pairs('92,10 100,60 96,120')],
  },
  back: {
    view: 'Upper back from behind',
    width: 300,
    height: 310,
    shapes: [
      pairs(
        '-140,-28 -40,-22 60,-16 96,12 160,26 220,44 256,84 270,140 276,220 280,320 282,440 236,440 232,340 228,260 222,200 214,168 206,200 198,250 192,320 188,440 -140,440',
      ),
    ],
    lines: [
      pairs('112,70 106,110 116,156 136,194 148,190 166,150 190,104 214,78'),
      pairs('112,70 150,66 190,62 220,66'),
      pairs('52,-10 50,100 50,210 51,320'),
    ],
  },
  'lower-back': {
    view: 'Lower back from behind',
    width: 280,
    height: 300,
    shapes: [pairs('-160,-130 212,-130 206,-40 200,30 196,70 208,120 226,170 238,230 242,300 246,440 -160,440')],
    lines: [
      pairs('110,-10 109,80 109,160 110,206'),
      pairs('110,330 110,280 110,244'),
      pairs('204,118 182,126 164,148 152,180'),
      pairs('110,244 130,214 146,196'),
    ],
  },
  'thigh-front': {
    view: 'Right thigh from the front',
    width: 240,
    height: 480,
    room: 60,
    shapes: [
      pairs(
        '36,-30 24,30 20,90 24,170 36,260 50,340 58,390 54,430 60,470 66,520 70,640 148,640 150,520 152,470 156,430 148,386 152,330 162,250 172,170 178,110 180,84 188,112 194,180 204,260 212,360 218,480 220,640 460,640 460,-120',
      ),
    ],
    lines: [
      pairs('52,34 100,56 150,78 176,92'),
      pairs('82,402 94,392 116,392 128,402 130,428 118,448 94,448 82,430 82,402'),
      pairs('62,130 64,220 72,300'),
      pairs('150,200 144,280 134,350'),
    ],
  },
  'thigh-seated': {
    view: 'Seated, from the right, the knee at a right angle',
    width: 440,
    height: 280,
    room: 50,
    shapes: [
      pairs(
        '-160,-120 -160,250 -60,246 20,240 80,228 170,222 260,212 312,206 326,232 324,300 324,430 410,430 412,310 414,240 414,170 404,130 384,110 340,98 270,90 190,86 136,88 116,70 112,30 104,-30',
      ),
    ],
    lines: [
      pairs('116,70 108,92 94,108'),
      pairs('366,106 392,116 404,140 392,158 374,150'),
      pairs('-30,238 200,236 318,236'),
    ],
  },
  'calf-inner': {
    view: 'Right calf from the inside, the foot on a bench',
    width: 230,
    height: 430,
    room: 70,
    shapes: [
      pairs(
        '72,-30 66,20 68,70 72,140 80,220 88,290 92,346 72,374 40,388 18,400 18,412 150,412 154,394 140,366 136,330 146,270 166,210 180,150 180,100 168,50 164,20 166,-30',
      ),
    ],
    lines: [
      pairs('98,352 106,340 120,342 124,356'),
      pairs('150,60 158,110 150,170 138,220'),
      pairs('-30,414 110,414 260,414'),
    ],
  },
  neck: {
    view: 'Neck from the front, looking ahead',
    width: 260,
    height: 230,
    shapes: [bothSides(260, pairs('58,-30 60,10 72,40 84,56 84,90 80,120 66,146 30,164 -40,182 -160,200 -160,420'))],
    lines: [
      pairs('92,40 112,56 130,60 148,56 168,40'),
      pairs('98,66 112,120 124,168'),
      pairs('162,66 148,120 136,168'),
      pairs('60,180 100,174 124,172'),
      pairs('200,180 160,174 136,172'),
    ],
  },
  'upper-trunk': {
    view: 'Upper body from the front',
    width: 480,
    height: 330,
    shapes: [bothSides(480, UPPER_TRUNK_HALF)],
    lines: [
      pairs('118,252 150,274 204,272 236,258'),
      pairs('362,252 330,274 276,272 244,258'),
      pairs('200,44 226,56 240,60 254,56 280,44'),
      pairs('96,176 106,152 128,126'),
      pairs('384,176 374,152 352,126'),
    ],
  },
  trunk: {
    view: 'Trunk from the front',
    width: 420,
    height: 400,
    shapes: [bothSides(420, TRUNK_HALF)],
    lines: [
      pairs('104,66 140,40 176,10 206,-20'),
      pairs('316,66 280,40 244,10 214,-20'),
      pairs('92,206 116,214 136,250 142,276'),
      pairs('328,206 304,214 284,250 278,276'),
      pairs('128,286 170,330 204,380'),
      pairs('292,286 250,330 216,380'),
    ],
  },
  'hip-side': {
    view: 'Hip from the right side, the front to the right',
    width: 330,
    height: 380,
    shapes: [
      pairs(
        '96,-30 98,20 88,70 60,120 42,170 42,210 58,250 72,290 74,420 214,420 220,330 226,270 232,210 244,150 252,90 242,30 240,-30',
      ),
    ],
    lines: [pairs('66,256 96,268 124,266'), pairs('104,98 140,76 184,88 216,120')],
  },
  'thigh-back': {
    view: 'Right thigh from behind',
    width: 290,
    height: 300,
    shapes: [
      pairs('78,148 70,200 60,260 54,330 50,480 -160,480 -160,-140 40,-140'),
      pairs(
        '30,-140 40,-30 74,60 78,140 90,200 102,270 108,340 112,470 200,470 204,340 212,260 226,180 234,110 230,40 218,-30',
      ),
    ],
    lines: [pairs('80,124 110,140 150,142 186,130'), pairs('150,190 152,250 154,320')],
  },
  shank: {
    view: 'Right lower leg from the front',
    width: 210,
    height: 440,
    room: 70,
    shapes: [LEG_FRONT],
    lines: [pairs('104,20 98,120 96,220 98,320'), pairs('70,362 60,372 66,388'), pairs('130,352 138,364 132,382')],
  },
  'arm-flexed': {
    view: 'Right arm raised and tensed, from the front',
    width: 360,
    height: 320,
    shapes: [
      pairs(
        '520,84 400,90 340,96 296,104 250,112 210,118 170,122 138,134 116,146 108,118 112,60 110,-30 112,-150 36,-150 36,-30 34,40 32,110 34,170 46,210 76,230 130,232 190,236 240,244 280,266 296,330 298,460 520,460',
      ),
    ],
    lines: [
      pairs('116,146 100,160 84,164'),
      pairs('140,150 176,146 216,152 244,168'),
      pairs('296,104 280,140 284,190 296,240'),
    ],
  },
  forearm: {
    view: 'Right forearm, palm up',
    width: 210,
    height: 430,
    room: 70,
    shapes: [
      pairs(
        '52,-30 50,20 40,70 36,112 42,170 54,240 62,300 64,334 58,360 44,400 30,470 150,470 150,400 142,362 138,336 142,300 152,240 166,170 172,112 166,66 152,20 150,-30',
      ),
    ],
    lines: [
      pairs('62,26 86,36 116,36 140,26'),
      pairs('70,346 92,352 112,352 132,346'),
      pairs('104,80 102,180 102,280'),
    ],
  },
} as const satisfies Record<string, Region>

export type RegionId = keyof typeof REGIONS
