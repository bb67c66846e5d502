/** One of many to pick from. */
export interface Picked {
  id: string
  name: string
  /** What it is, on a line of its own. */
  note?: string
}
