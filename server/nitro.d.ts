/** What Nitro puts before every entry; it has no types of its own. */
declare module '#nitro-internal-pollyfills'
