/** What Nitro puts before every entry; it has no types of its own. */
declare module '#nitro-internal-pollyfills'

/** comlink's adapter for worker threads: its types lie beside it under another name. */
declare module 'comlink/dist/esm/node-adapter.mjs' {
  export { default } from 'comlink/dist/esm/node-adapter'
}
