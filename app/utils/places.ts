/** A page of a place, as menus and Jump call it; `name` where Jump needs more words than the menu within the place. */
export type PlacePage = {
  to: string
  label: string
  name?: string
  /** Whether it is only for those who see the charges of the whole company. */
  isWhole?: boolean
}
/** One of the places of the application: its first page, and what belongs to it besides. */
export type Place = {
  name: string
  /** Whether it is only for those who see the charges of the whole company. */
  isWhole?: boolean
  pages: [PlacePage, ...PlacePage[]]
}

/** Every place: the bar at the top, the menus within places and Jump are made of it. */
export const places: readonly Place[] = [
  {
    name: 'Estimates',
    pages: [
      { to: '/estimates', label: 'Estimates' },
      { to: '/estimates/finder', label: 'Finder' },
      { to: '/estimates/patterns', label: 'Patterns' },
      { to: '/estimates/uplifts', label: 'Uplifts' },
      { to: '/estimates/rate-cards', label: 'Rate cards' },
    ],
  },
  {
    name: 'Spend',
    pages: [
      { to: '/spend', label: 'Sentence', name: 'Spend' },
      { to: '/spend/saved', label: 'Saved', name: 'Saved sentences' },
      { to: '/spend/tags', label: 'Tags' },
      { to: '/spend/commitments', label: 'Commitments' },
      { to: '/spend/codes', label: 'SKU codes' },
    ],
  },
  {
    name: 'Allocation',
    pages: [
      { to: '/allocation', label: 'Month', name: 'Allocation' },
      { to: '/allocation/unit-costs', label: 'Unit costs' },
      { to: '/allocation/lookups', label: 'Lookups', isWhole: true },
    ],
  },
  {
    name: 'Savings',
    pages: [
      { to: '/savings', label: 'Savings' },
      { to: '/savings/otherwise', label: 'Otherwise', name: 'What it would cost otherwise' },
      { to: '/savings/orders', label: 'Standing orders', isWhole: true },
    ],
  },
  {
    name: 'Sources',
    isWhole: true,
    pages: [
      { to: '/sources', label: 'Deliveries', name: 'Sources' },
      { to: '/sources/connections', label: 'Connections' },
      { to: '/sources/runs', label: 'Automatic jobs' },
      { to: '/sources/invoices', label: 'Invoices' },
      { to: '/sources/rates', label: 'Exchange rates' },
    ],
  },
]

/** The places for whoever sees all charges, or only some. */
export const placesFor = (seesAll: boolean): readonly Place[] =>
  seesAll ? places : places.filter(({ isWhole }) => !isWhole).map(({ pages, ...place }) => ({ ...place, pages: pagesFor(pages, false) }))

/** The pages of a place for whoever sees all charges, or only some; the first is for everybody whom the place is for. */
export const pagesFor = ([first, ...others]: Place['pages'], seesAll: boolean): Place['pages'] => [
  first,
  ...others.filter(({ isWhole }) => seesAll || !isWhole),
]
