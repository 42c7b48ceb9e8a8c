/** The most that a body may have: bytes, levels of lists and objects in each other, and values. */
export type BodyLimits = { bytes: number; depth: number; values: number }
export const usualBody: BodyLimits = { bytes: 2 * 1024 * 1024, depth: 40, values: 200_000 }
/** Where a file comes as JSON. */
export const fileBody: BodyLimits = { bytes: 64 * 1024 * 1024, depth: 40, values: 5_000_000 }
