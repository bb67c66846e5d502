/** An icon a file: the package's one entry would have every build read all 1,700. */
declare module '@lucide/vue/dist/esm/icons/*.mjs' {
  import type { LucideIcon } from '@lucide/vue'
  const icon: LucideIcon
  export default icon
}
