/** What Nuxt gives to every file, for the few app files that are tested without it. */
declare module '*.vue'

declare const $fetch: <Answer>(path: string, options?: object) => Promise<Answer>
