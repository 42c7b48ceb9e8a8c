import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { places, placesFor } from '../../../app/utils/places'

const fileOf = (to: string) => [`app/pages${to}.vue`, `app/pages${to}/index.vue`].find(existsSync)

it('every page of a place is there, shows the menu of its place, and stands in it once', () => {
  const all = places.flatMap(({ name, pages }) => pages.map(({ to }) => ({ name, to })))
  expect(new Set(all.map(({ to }) => to)).size).toBe(all.length)
  for (const { name, to } of all) {
    const file = fileOf(to)
    expect(file, to).toBeDefined()
    const pages = places.find(place => place.name === name)!.pages
    const menus = /<SpendTabs/.test(readFileSync(file!, 'utf8')) ? 'app/components/spend/SpendTabs.vue' : file!
    if (pages.length > 1) expect(readFileSync(menus, 'utf8'), to).toContain(`<PlaceNav place="${name}" />`)
  }
})

it('pages that need nothing in their address stand in a menu', () => {
  const listed = new Set(places.flatMap(({ pages }) => pages.map(({ to }) => to)))
  const about = new Set(['/spend/of', '/spend/resource']) // of one value, reached from its figures
  for (const place of ['estimates', 'spend', 'sources'])
    for (const name of readdirSync(`app/pages/${place}`)) {
      const to = name === 'index.vue' ? `/${place}` : `/${place}/${name.replace('.vue', '')}`
      if (!name.startsWith('[') && !about.has(to)) expect(listed, to).toContain(to)
    }
})

it('Sources is for those who see the whole company', () => {
  expect(placesFor(true).map(({ name }) => name)).toEqual(['Estimates', 'Spend', 'Allocation', 'Savings', 'Sources'])
  expect(placesFor(false).map(({ name }) => name)).toEqual(['Estimates', 'Spend', 'Allocation', 'Savings'])
})
