import { LOCALE } from './locale'

const format = new Intl.NumberFormat(LOCALE)

/** So many of something: `1 entry`, `2 entries`, `1,200 entries`. */
export const manyOf = (n: number, one: string, many: string = `${one}s`): string => `${format.format(n)} ${n === 1 ? one : many}`
