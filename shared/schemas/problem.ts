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
  /** It will be done once its person has proved anew who they are. */
  confirm?: true
  /** The device is locked. */
  locked?: true
  /** It will be done once its person has a second proof. */
  second?: true
}
