/** One of many to pick from. */
export interface Picked {
  id: string
  name: string
}
