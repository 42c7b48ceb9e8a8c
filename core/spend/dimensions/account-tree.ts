import { columnLayer, entryCoding } from './entry-coding'
import type { DimensionKind } from './kind'
import { levelOf, levels, LEVELS, rolledUp } from './names'

const PREFIX = 'AccountTree/'

/** `AccountTree/LEVEL`: the place of a sub account in the tree of accounts, rolled up. */
export const accountTree: DimensionKind<{ level: number }> = {
  kind: 'account tree',
  read(name) {
    const level = levelOf(name, PREFIX)
    return level === null ? null : { level }
  },
  coding({ entries }, { level }, name) {
    const { dictionary, read } = columnLayer(entries, 'subAccount', 'SubAccountId')
    const pathOf = (account: string | null) => (account === null ? [] : (entries.reference.accounts[account]?.path ?? []))
    return entryCoding(entries, name, [{ dictionary, read: id => rolledUp(pathOf(read(id)), level) }])
  },
  found: ({ reference }) =>
    levels(
      PREFIX,
      Object.values(reference.accounts).reduce((most, { path }) => Math.max(most, Math.min(LEVELS, path.length)), 0),
    ),
  label: ({ level }) => (level === 1 ? 'account tree, top level' : `account tree, ${level} levels`),
  group: () => 'accounts and containers',
}
