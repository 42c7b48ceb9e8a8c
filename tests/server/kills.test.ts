import { afterAll, expect, it } from 'vitest'
import { kill, Killed, killKinds } from '../support/kills'

/** When each is killed, in milliseconds: early, and in the midst of it. */
const times = {
  'an estimate is saved': [20, 300],
  'rules are saved': [35, 250],
  'periods change': [90, 400],
  'an action is approved': [8, 60],
}
/** `npm run bench:kills`: so many, at moments that are never the same. */
const many = Number(process.env.RAIN_BARREL_KILLS ?? 0)
const cases = many
  ? Array.from(
      { length: many },
      (_, i) => [killKinds[i % killKinds.length]!, Math.round(Math.random() * (i % 4 === 3 ? 100 : 600))] as const,
    )
  : killKinds.flatMap(kind => times[kind].map(after => [kind, after] as const))

const shared = new Killed()
afterAll(() => shared.end())

it.each(cases)('killed while %s, after %i ms', async (kind, after) => {
  await kill(kind, after, shared)
  expect.hasAssertions()
})
