/** Asks again and again until the answer fits; fails with the last one after half a minute. */
export async function until<Value>(ask: () => Promise<Value>, fits: (value: Value) => boolean): Promise<Value> {
  for (let i = 0; i < 375; i += 1) {
    const value = await ask()
    if (fits(value)) return value
    await new Promise((wake) => setTimeout(wake, 80))
  }
  throw new Error(`never: ${JSON.stringify(await ask()).slice(0, 400)}`)
}
