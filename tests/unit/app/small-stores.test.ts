// Attempts, undo, kept sentences and runs: what the interface remembers by itself.
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { shallowRef } from 'vue'
import { useAttempt } from '../../../app/composables/useAttempt'
import { useData } from '../../../app/stores/data'
import { useJobs } from '../../../app/stores/jobs'
import { useKeys } from '../../../app/stores/keys'
import { useSentences } from '../../../app/stores/sentences'
import { distortionWords } from '../../../app/utils/distortion-words'
import { undoable } from '../../../app/utils/undo'
import { answering, refusal } from '../../support/answering'

beforeEach(() => {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
})

it('an attempt says what it failed with, is busy until it has ended, and forgets the problem before', async () => {
  const { problem, attempt, busy } = useAttempt()
  answering({ 'GET jobs': () => refusal(403, 'forbidden', 'Not yours to see.') })
  const failing = attempt(() => useJobs().load())
  expect(busy.value).toBe(true)
  expect([await failing, problem.value!.detail, busy.value]).toEqual([false, 'Not yours to see.', false])
  expect([await attempt(async () => {}), problem.value]).toEqual([true, null])
})

it('undo goes back step by step, and a new edit ends what could be done again', () => {
  const now = shallowRef<{ at: number } | null>(null)
  const told: number[] = []
  const { change, undo, redo, forget, past, future } = undoable(now, ({ at }) => told.push(at))
  change(() => ({ at: 9 }))
  undo()
  redo()
  expect([now.value, told]).toEqual([null, []])
  now.value = { at: 0 }
  change(({ at }) => ({ at: at + 1 }))
  change(({ at }) => ({ at: at + 1 }))
  change(same => same)
  undo()
  expect([now.value, past.value, future.value]).toEqual([{ at: 1 }, [{ at: 0 }], [{ at: 2 }]])
  change(() => ({ at: 7 }))
  redo()
  expect([now.value.at, told]).toEqual([7, [1, 2, 1, 7]])
  forget()
  undo()
  expect(now.value.at).toBe(7)
})

it('sentences open side by side are noted in their place; one that is closed gives way to its neighbour', () => {
  const sentences = useSentences()
  sentences.open = []
  const asked = (name: string) => ({ query: { split: name }, title: name })
  sentences.note(asked('a'))
  sentences.note(asked('b'))
  expect(sentences.open.map(({ title }) => title)).toEqual(['b'])
  sentences.add(asked('c'))
  sentences.add(asked('d'))
  expect([sentences.at, sentences.open.map(({ title }) => title)]).toEqual([2, ['b', 'c', 'd']])
  expect([sentences.close(0), sentences.at]).toEqual([null, 1])
  expect([sentences.close(1), sentences.at]).toEqual([asked('c').query, 0])
  expect([sentences.close(0), sentences.open]).toEqual([{}, []])
  for (let i = 0; i < 30; i++) sentences.note(asked(`q${i % 25}`))
  expect(sentences.recent.map(({ title }) => title).slice(0, 2)).toEqual(['q4', 'q3'])
  expect([sentences.recent.length, new Set(sentences.recent.map(({ title }) => title)).size]).toEqual([20, 20])
})

it('keys of a page are listed in order and go with it', () => {
  const keys = useKeys()
  const [b, a] = [
    { key: 'b', what: 'back' },
    { key: 'a', what: 'add' },
  ]
  keys.add(b)
  keys.add(a)
  expect(keys.listed.map(({ key }) => key)).toEqual(['a', 'b'])
  keys.remove(a)
  expect(keys.listed).toEqual([b])
})

it('where nothing can be reached, the strip says so instead of old figures', async () => {
  answering({})
  const data = useData()
  await data.load()
  expect([data.failed, data.facts, data.days, data.partial]).toEqual([true, null, null, null])
})

it('what distorts a total is said with what one does about it, unless kinds of charges are looked at on purpose', () => {
  const of = (ChargeCategory: string, amount: string, currency = 'EUR') => ({ values: { ChargeCategory }, start: null, currency, amount })
  const rows = [of('Usage', '100'), of('Credit', '-10.01'), of('Purchase', '10'), of('Tax', '25'), of('Tax', '999', 'USD')]
  const view = { keep: {}, leaveOut: {}, measure: 'billedCost' as const }
  expect(distortionWords(view, rows, 'EUR').map(({ id, said, change }) => [id, said, change])).toEqual([
    ['less', 'Credits and adjustments take 10.01 EUR off 100.00 EUR of usage.', { keep: { ChargeCategory: ['Usage'] } }],
    ['tax', 'Tax of 25.00 EUR is in the total.', { leaveOut: { ChargeCategory: ['Tax'] } }],
  ])
  const bought = [of('Usage', '100'), of('Purchase', '50')]
  expect(distortionWords(view, bought, 'EUR')[0]!.change).toEqual({ measure: 'effectiveCost' })
  expect(distortionWords({ ...view, measure: 'effectiveCost' }, bought, 'EUR')[0]!.change).toEqual({
    leaveOut: { ChargeCategory: ['Purchase'] },
  })
  expect(distortionWords({ ...view, keep: { ChargeCategory: ['Tax'] } }, rows, 'EUR')).toEqual([])
})
