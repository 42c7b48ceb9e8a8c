import { Problem } from '../../problems/problem'

/** Whoever asked does not want to know any more, or has asked anew. */
export class GivenUp extends Problem {
  constructor() {
    super('conflict', 'conflict', 'It was given up', 'Nobody waited for it any more, or it was asked for anew.')
  }
}

/** So often at most something is begun anew because what it looks at has changed; then it is done without a break. */
const MOST_BEGINNINGS = 5

let turn: Promise<unknown> = Promise.resolve()
const others = () => new Promise<void>(resolve => setImmediate(resolve))

/**
 * Runs something long in a thread that answers others, slice by slice, one such thing after the other; begins anew when what it looks at
 * has changed in between.
 * @param make begins it.
 * @param state what it looks at: equal as long as nothing has changed.
 * @throws GivenUp when nobody wants it any more.
 */
export function inSlices<T>(make: () => Generator<void, T>, state: () => number, isGivenUp: () => boolean): Promise<T> {
  const mine = turn.then(async () => {
    for (let beginning = 1; ; beginning++) {
      const seen = state()
      const slices = make()
      for (let step = slices.next(); ; step = slices.next()) {
        if (step.done) return step.value
        if (beginning === MOST_BEGINNINGS) continue
        await others()
        if (isGivenUp()) throw new GivenUp()
        if (state() !== seen) break
      }
    }
  })
  turn = mine.catch(() => {})
  return mine
}
