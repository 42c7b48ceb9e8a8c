/** What takes long, part by part: between two parts others are served. */
export type Slices<T> = Generator<void, T>

/** Runs what is done in slices without a break. */
export function toEnd<T>(slices: Slices<T>): T {
  for (;;) {
    const { done, value } = slices.next()
    if (done) return value
  }
}
