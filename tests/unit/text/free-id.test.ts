import { expect, it } from 'vitest'
import { freeId } from '../../../core/text/free-id'

it('makes an id of any name, each once, and none that is too long', () => {
  expect(freeId('Ines Moldal', [])).toBe('ines-moldal')
  expect(freeId('Ines Moldal', ['ines-moldal', 'ines-moldal-2'])).toBe('ines-moldal-3')
  expect(freeId(' – ', ['new'])).toBe('new-2')
  expect(freeId('constructor', [])).toBe('constructor')
  expect(freeId('Łódź № 5', [])).toBe('łódź-5')
  expect(freeId('x'.repeat(300), [])).toBe('x'.repeat(60))
})
