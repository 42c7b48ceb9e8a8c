import { columnPlace, CONTAINER_COLUMN } from '../dimension'
import type { Entries } from '../entries'
import type { EntryLayer } from './entry-coding'
import { asText } from './names'

/** The path of a resource's container, from the top. */
export function containerPath(entries: Entries, id: number): string[] {
  return (
    asText(entries.others(id)[CONTAINER_COLUMN])
      ?.split('/')
      .filter(part => part !== '') ?? []
  )
}

/** A tag's own layer and, where anything inherits it, those of containers and accounts. */
export function tagLayers(entries: Entries, key: string): (EntryLayer & { source: 'own' | 'container' | 'account' })[] {
  const { accounts, containerTags } = entries.reference
  const layers: ReturnType<typeof tagLayers> = [{ source: 'own', dictionary: 'tagSet', read: id => asText(entries.tags(id)[key]) }]
  if (Object.values(containerTags).some(tags => key in tags)) {
    layers.push({
      source: 'container',
      dictionary: 'others',
      read: id => {
        const path = containerPath(entries, id)
        for (let length = path.length; length > 0; length--) {
          const value = containerTags[path.slice(0, length).join('/')]?.[key]
          if (value !== undefined) return value
        }
        return null
      },
    })
  }
  if (Object.values(accounts).some(account => key in account.tags)) {
    const place = columnPlace('subAccount', 'SubAccountId')
    layers.push({
      source: 'account',
      dictionary: 'subAccount',
      read: id => {
        const account = entries.entries.subAccount[id]?.[place]
        return account ? (accounts[account]?.tags[key] ?? null) : null
      },
    })
  }
  return layers
}

/** The keys of all tags, inherited ones too. */
export function tagKeys(entries: Entries): string[] {
  const keys = new Set<string>()
  for (let id = 0; id < entries.entries.tagSet.length; id++) for (const key of Object.keys(entries.tags(id))) keys.add(key)
  for (const { tags } of Object.values(entries.reference.accounts)) for (const key of Object.keys(tags)) keys.add(key)
  for (const tags of Object.values(entries.reference.containerTags)) for (const key of Object.keys(tags)) keys.add(key)
  return [...keys].sort()
}

/** Keys of the tags that something inherits. */
export const inheritedTagKeys = (entries: Entries): string[] => tagKeys(entries).filter(key => tagLayers(entries, key).length > 1)
