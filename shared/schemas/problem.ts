/** A sentence about one field of what was sent. */
export interface FieldProblem {
  field: string
  message: string
}

/** What the server answers with when something is wrong. */
export interface Problem {
  message: string
  fields: FieldProblem[]
  /** What stands there instead, where that is the trouble. */
  stored?: unknown
}
