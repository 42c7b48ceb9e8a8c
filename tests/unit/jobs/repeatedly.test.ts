import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { repeatedly } from '../../../server/jobs/repeatedly'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

it('never does its work twice at once, and stops', async () => {
  let end: (() => void) | null = null
  const work = vi.fn(
    () =>
      new Promise<void>(resolve => {
        end = resolve
      }),
  )
  const stop = repeatedly(1000, work)
  await vi.advanceTimersByTimeAsync(5500)
  expect(work).toHaveBeenCalledTimes(1)
  end!()
  await vi.advanceTimersByTimeAsync(1000)
  expect(work).toHaveBeenCalledTimes(2)
  end!()
  stop()
  await vi.advanceTimersByTimeAsync(5000)
  expect(work).toHaveBeenCalledTimes(2)
})

it('logs a work that fails and does it again', async () => {
  const logged = vi.spyOn(console, 'error').mockImplementation(() => {})
  const work = vi.fn(() => Promise.reject(new Error('no')))
  const stop = repeatedly(1000, work)
  await vi.advanceTimersByTimeAsync(2500)
  stop()
  expect(work).toHaveBeenCalledTimes(2)
  expect(logged).toHaveBeenCalledTimes(2)
  logged.mockRestore()
})
