import '../utils/no-eval'
import { findAssumptions } from '../../core/estimate/documents/assumptions'
import { blindSpotSize, findBlindSpots } from '../../core/estimate/blind-spots'
import type { Estimate, Scenario } from '../../core/estimate/estimate'
import { PriceMemo } from '../../core/estimate/pricing/price-memo'
import { priceEstimate, type Prices } from '../../core/estimate/pricing/price-estimate'
import { simulate, uncertainInputs } from '../../core/estimate/ranges/simulate'
import { decimalText } from '../../core/money/decimal'
import { closeGap } from '../../core/estimate/scenarios/close-gap'
import type { AnalysisReply, AnalysisTask } from '../utils/analysis'

// What takes longer than a frame is computed here: draws of ranges, single changes that close the gap, effects of defaults.
let prices: Prices = { cards: new Map(), uplifts: [], rates: [] }
let memo = new PriceMemo()
let newest = 0

const reply = (message: AnalysisReply) => postMessage(message)
const breathe = () => new Promise(resolve => setTimeout(resolve))

async function analyse(number: number, estimate: Estimate, scenario: Scenario | null) {
  const priced = priceEstimate(estimate, prices, null, memo)
  const steps: (() => void)[] = [
    () =>
      reply({
        number,
        sizes: Object.fromEntries(
          findBlindSpots({ estimate, priced }).map(spot => {
            const size = blindSpotSize(estimate, prices, spot.fix, memo)
            return [spot.id, size && decimalText(size)]
          }),
        ),
      }),
    () => reply({ number, closers: closeGap(estimate, prices, memo, scenario) }),
    () => {
      const simulated = uncertainInputs(priced).length
        ? simulate(priced, estimate.seed, undefined, done => {
            reply({ number, drawn: done })
            return true
          })
        : null
      reply({ number, simulated })
    },
    () => reply({ number, assumptions: findAssumptions(estimate, prices, memo) }),
  ]
  for (const step of steps) {
    // a newer estimate may have come in meanwhile
    await breathe()
    if (number !== newest) return
    step()
  }
}

addEventListener('message', ({ data }: MessageEvent<AnalysisTask>) => {
  if ('prices' in data) {
    prices = data.prices
    memo = new PriceMemo()
    return
  }
  newest = data.number
  void analyse(data.number, data.estimate, data.scenario)
})
