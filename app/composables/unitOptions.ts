/** The two choices of unit, as every form offers them. */
export const MASS_OPTIONS = [
  { value: 'kg', label: 'kg' },
  { value: 'lb', label: 'lb' },
] as const

export const LENGTH_OPTIONS = [
  { value: 'cm', label: 'cm' },
  { value: 'in', label: 'in' },
] as const
