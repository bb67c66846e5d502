/** Longest edge a picture is traced at, pixels. */
const TRACED = 360
/** Share of the strongest edge below which nothing is drawn. */
const THRESHOLD = 0.22

function loaded(source: string): Promise<HTMLImageElement> {
  return new Promise((give, fail) => {
    const image = new Image()
    image.onload = () => give(image)
    image.onerror = () => fail(new Error('The photograph could not be loaded.'))
    image.src = source
  })
}

/**
 * Traces where a picture changes most (Sobel's operator on its grey values): the ghost a coach lines the client up with.
 * @param source address of a picture of this site
 * @returns address of a transparent picture holding the lines only
 */
export async function outlineOf(source: string, colour: readonly [number, number, number]): Promise<string> {
  const image = await loaded(source)
  const shrink = TRACED / Math.max(image.naturalWidth, image.naturalHeight)
  const width = Math.round(image.naturalWidth * shrink)
  const height = Math.round(image.naturalHeight * shrink)
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('This browser cannot draw.')
  pen.drawImage(image, 0, 0, width, height)
  const picture = pen.getImageData(0, 0, width, height)
  const edges = sobel(grey(picture.data), width, height)
  const strongest = edges.reduce((most, edge) => Math.max(most, edge), 0) || 1
  edges.forEach((edge, i) => {
    const strength = edge / strongest
    picture.data.set([...colour, strength > THRESHOLD ? Math.min(255, 120 + 200 * strength) : 0], i * 4)
  })
  pen.putImageData(picture, 0, 0)
  return canvas.toDataURL('image/png')
}

function grey(data: Uint8ClampedArray): Float32Array {
  const values = new Float32Array(data.length / 4)
  for (let i = 0; i < values.length; i += 1) {
    values[i] = 0.299 * (data[4 * i] ?? 0) + 0.587 * (data[4 * i + 1] ?? 0) + 0.114 * (data[4 * i + 2] ?? 0)
  }
  return values
}

function sobel(values: Float32Array, width: number, height: number): Float32Array {
  const edges = new Float32Array(values.length)
  const at = (x: number, y: number) => values[y * width + x] ?? 0
  for (let y = 1; y < height - 1; y += 1) {
    for (let x = 1; x < width - 1; x += 1) {
      const across =
        at(x + 1, y - 1) + 2 * at(x + 1, y) + at(x + 1, y + 1) - at(x - 1, y - 1) - 2 * at(x - 1, y) - at(x - 1, y + 1)
      const down =
        at(x - 1, y + 1) + 2 * at(x, y + 1) + at(x + 1, y + 1) - at(x - 1, y - 1) - 2 * at(x, y - 1) - at(x + 1, y - 1)
      edges[y * width + x] = Math.hypot(across, down)
    }
  }
  return edges
}
