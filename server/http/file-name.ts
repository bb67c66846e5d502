/**
 * A name as part of a file's: letters and figures, small, nothing a file system minds.
 * @example plainName('Maren Osk') // 'maren-osk'
 */
export function plainName(name: string): string {
  return (
    name
      .normalize('NFKD')
      .replace(/[^\w]+/g, '-')
      .replace(/^-|-$/g, '')
      .toLowerCase() || 'file'
  )
}
