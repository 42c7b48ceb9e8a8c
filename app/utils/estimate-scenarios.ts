import type { Scenario } from '../../core/estimate/estimate'
import type { Prices } from '../../core/estimate/pricing/price-estimate'
import { changeName } from '../../core/estimate/scenarios/change-name'
import type { Closer } from '../../core/estimate/scenarios/close-gap'
import { takeOver, type Change } from '../../core/estimate/scenarios/layer'
import { moveScenario } from '../../core/estimate/scenarios/move'
import * as edit from '../../core/estimate/sheet/edit-rows'
import { newId, type EstimateAtWork } from './estimate-rows'

const NOTHING: Change = { whole: {}, rows: {}, conditions: [] }

/** What can be done to the scenarios of an estimate. */
export function scenarioActions({ estimate, cards, scenarioId, change }: EstimateAtWork, prices: () => Prices) {
  const add = (scenario: Scenario) => {
    change(e => ({ ...e, scenarios: [...e.scenarios, scenario] }))
    return scenario.id
  }
  const addScenario = (name: string, changed: Change = NOTHING) => add({ id: newId(), name: name.slice(0, 80), ...changed })
  return {
    /** @returns the id of the new scenario. */
    addScenario,
    /** A scenario in which everything stands elsewhere, on a card that is loaded. */
    addMoved: (provider: string, region: string) =>
      cards.value.has(provider) ? add(moveScenario(estimate.value!, { provider, region }, newId(), `in ${region}`)) : null,
    tryCloser: (closer: Closer) => addScenario(changeName(estimate.value!, closer.change), closer.change),
    /** Makes a scenario's inputs the estimate's own. */
    adopt(id: string) {
      if (scenarioId.value === id) scenarioId.value = null
      change(e => takeOver(e, id, prices()))
    },
    removeScenario: (id: string) => change(e => ({ ...e, scenarios: e.scenarios.filter(scenario => scenario.id !== id) })),
    changeScenario: (id: string, changed: (scenario: Scenario) => Scenario) => change(edit.editScenario(id, changed)),
    /** Whether the scenario that is looked at has a value of its own for an input. */
    isOverridden: (row: string, field: string) =>
      estimate.value?.scenarios.find(scenario => scenario.id === scenarioId.value)?.rows[row]?.[field] !== undefined,
    dropOverride: (row: string, field: string) => scenarioId.value && change(edit.dropOverride(scenarioId.value, row, field)),
  }
}
