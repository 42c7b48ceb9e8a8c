import { computed } from 'vue'
import { useData } from '../stores/data'
import { dimensionGroup, dimensionGroups, dimensionLabel, usualDimensions } from '../../shared/words/dimensions'
/** All dimensions as a list to choose from: the most used first, then by headings; an empty one says why it is. */
export function useDimensionOptions() {
  const data = useData()
  const options = computed(() => {
    const facts = data.facts
    if (!facts) return []
    const known = [...facts.columns, ...facts.found, ...facts.inherited.map(key => `TagsFrom/${key}`)]
    const option = <G extends string>(value: string, group: G) => ({
      value,
      label: dimensionLabel(value),
      group,
      ...(facts.inherited.some(key => value === `Tags/${key}`) && { note: 'own or inherited' }),
    })
    const usual = usualDimensions.filter(d => known.includes(d)).map(d => option(d, 'most used'))
    const others = known
      .filter(d => !usualDimensions.includes(d))
      .map(d => option(d, dimensionGroup(d)))
      .sort((a, b) => dimensionGroups.indexOf(a.group) - dimensionGroups.indexOf(b.group))
    const empty = facts.unused.map(({ name, since }) => ({
      value: name,
      label: dimensionLabel(name),
      group: 'empty',
      note: since === '1.0' ? 'no charge has a value' : `came with FOCUS ${since}; no charge has a value`,
      disabled: true,
    }))
    return [...usual, ...others, ...empty]
  })
  return { options }
}
