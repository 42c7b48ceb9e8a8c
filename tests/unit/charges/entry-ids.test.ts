import fc from 'fast-check'
import { expect, it } from 'vitest'
import { dictionaryNames } from '../../../core/focus/star'
import { digestOf, EntryIds, type KnownEntries } from '../../../server/charges/entry-ids'

const none = () => Object.fromEntries(dictionaryNames.map(name => [name, []])) as unknown as KnownEntries

it('tells combinations apart by their values, null from the empty text', () => {
  expect(digestOf([null])).not.toBe(digestOf(['']))
  expect(digestOf(['a', 'b'])).not.toBe(digestOf(['a,b']))
  expect(digestOf(['a', null])).not.toBe(digestOf(['a']))
})

it('goes by the ids of the database, also where others have made entries meanwhile', () => {
  const ids = new EntryIds({ ...none(), subAccount: [{ id: 7, digest: digestOf(['known']) }] })
  expect(ids.number('subAccount', ['known'])).toBe(7)
  const [first, second] = [ids.number('subAccount', ['new']), ids.number('subAccount', ['newer'])]
  expect(ids.number('subAccount', ['new'])).toBe(first)
  expect(ids.takeNew()).toEqual({
    subAccount: [
      { digest: digestOf(['new']), values: ['new'] },
      { digest: digestOf(['newer']), values: ['newer'] },
    ],
  })
  expect(() => ids.id('subAccount', first)).toThrow('has no id yet')
  // another process has made eight to eleven, and `newer` before
  ids.give({ subAccount: [12, 4] })
  expect([7, first, second].map(number => ids.id('subAccount', number))).toEqual([7, 12, 4])
  expect(ids.takeNew()).toEqual({})
})

it('gives every combination the id that it was given, in whatever pieces they come', () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.string({ maxLength: 3 }), { minLength: 1, maxLength: 8 }), { maxLength: 8 }), pieces => {
      const ids = new EntryIds(none())
      const given = new Map<string, number>()
      const numbers = new Map<string, number>()
      let next = 1000
      for (const piece of pieces) {
        for (const text of piece) numbers.set(text, ids.number('sku', [text]))
        const { sku = [] } = ids.takeNew()
        ids.give({
          sku: sku.map(({ values }) => {
            given.set(values[0]!, (next -= 7))
            return next
          }),
        })
      }
      for (const [text, number] of numbers) if (ids.id('sku', number) !== given.get(text)) return false
      return new Set(numbers.values()).size === numbers.size
    }),
  )
})
