/** So many of something: `1 entry`, `2 entries`. */
export const manyOf = (n: number, one: string, many: string = `${one}s`): string => `${n} ${n === 1 ? one : many}`
