import { expect, it } from 'vitest'
import { placesFor } from '../../../app/utils/places'

it('a page that was added stands in the menu of its place, for everybody', () => {
  const spend = (seesAll: boolean) => placesFor(seesAll).find(({ name }) => name === 'Spend')!
  for (const seesAll of [true, false]) expect(spend(seesAll).pages.map(({ to }) => to)).toContain('/spend/oldest')
})
