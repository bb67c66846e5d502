let ending = false

/** Says that this process takes nothing new: whoever stands before it sends elsewhere. */
export function noteEnding(): void {
  ending = true
}

export const isEnding = () => ending
