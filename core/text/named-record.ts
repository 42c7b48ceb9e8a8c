import { z } from 'zod'
import { namedObject } from './named'

/** Before it, the name that Zod would leave out is one like others; names that look like it then give way by one more. */
const GUARD = '~'
const guarded = /^~*__proto__$/

const renamed = (source: unknown, rename: (name: string) => string): unknown => {
  if (typeof source !== 'object' || source === null || Array.isArray(source)) return source
  return namedObject(Object.fromEntries(Object.entries(source).map(([name, value]) => [guarded.test(name) ? rename(name) : name, value])))
}

/**
 * A record by names that the data brings: any text is a name, `__proto__` too, which `z.record` leaves out without a word.
 * @returns a schema whose values have no prototype.
 */
export function namedRecord<V extends z.ZodType>(value: V, name = z.string()) {
  const record = z.preprocess(
    source => renamed(source, own => `${GUARD}${own}`),
    z.record(name, value).overwrite(read => renamed(read, own => own.slice(GUARD.length)) as typeof read),
  )
  return record as z.ZodType<Record<string, z.output<V>>, Record<string, z.input<V>>>
}
