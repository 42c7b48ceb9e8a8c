/** An object by names that the data brings: it has no prototype, so that `constructor` and `__proto__` are names like others. */
export function namedObject<T>(...sources: (Readonly<Record<string, T>> | undefined)[]): Record<string, T> {
  return Object.assign(Object.create(null) as Record<string, T>, ...sources)
}

/** The same of the values of an object too. */
export const namedObjects = <T>(source: Readonly<Record<string, Readonly<Record<string, T>>>>): Record<string, Record<string, T>> =>
  namedObject(Object.fromEntries(Object.entries(source).map(([name, value]) => [name, namedObject(value)])))
