import '@tanstack/vue-table'

declare module '@tanstack/vue-table' {
  interface ColumnMeta<TData, TValue> {
    /** Figures stand at the right. */
    right?: boolean
    /** Only to name the parameters the library declares. */
    readonly of?: [TData, TValue]
    /** Class that takes the column away where the screen is narrow. */
    goes?: string
  }
}
