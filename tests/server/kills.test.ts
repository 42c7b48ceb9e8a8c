import { expect, it } from 'vitest'
import { kill, killKinds } from '../support/kills'

/** When each is killed, in milliseconds: early, and in the midst of it. More of them in `bench/kills.mts`. */
const times = {
  'an estimate is saved': [20, 180, 400],
  'rules are saved': [35, 250],
  'periods change': [90, 200, 450],
  'an action is approved': [8, 60],
}

it.each(killKinds.flatMap(kind => times[kind].map(after => [kind, after] as const)))(
  'killed while %s, after %i ms',
  async (kind, after) => {
    await kill(kind, after)
    expect.hasAssertions()
  },
)
