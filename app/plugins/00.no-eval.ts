import '../utils/no-eval'

/** Comes first: before any schema is used. */
export default defineNuxtPlugin(() => {})
