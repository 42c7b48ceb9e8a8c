import type { Question } from '../core/spend/question'

const base = { keep: {}, leaveOut: {}, measure: 'effectiveCost' as const }
const year = { start: '2025-11-01', end: '2026-12-01' }
const october = { start: '2026-10-01', end: '2026-11-01' }

/** Twelve questions as analysts ask them. */
export const questions: { name: string; question: Question }[] = [
  { name: '13 months by month and service', question: { ...base, ...year, splitBy: ['ServiceName'], grain: 'month' } },
  {
    name: '13 months, one service, account by month',
    question: { ...base, ...year, measure: 'billedCost', splitBy: ['SubAccountName'], grain: 'month', keep: { ServiceName: ['Servers'] } },
  },
  { name: '13 months by day', question: { ...base, ...year, splitBy: [], grain: 'day' } },
  { name: '30 days by day and team', question: { ...base, start: '2026-10-25', end: '2026-11-24', splitBy: ['Tags/team'], grain: 'day' } },
  {
    name: 'a month, largest 50 resources',
    question: { ...base, ...october, measure: 'billedCost', splitBy: ['ResourceId'], grain: null, limit: 50 },
  },
  { name: 'a month by account and service', question: { ...base, ...october, splitBy: ['SubAccountName', 'ServiceName'], grain: null } },
  {
    name: 'a month, four splits',
    question: { ...base, ...october, splitBy: ['SubAccountName', 'ServiceName', 'SkuMeter', 'RegionId'], grain: null },
  },
  {
    name: '13 months without credits and tax, by charge category',
    question: { ...base, ...year, splitBy: ['ChargeCategory'], grain: 'month', leaveOut: { ChargeCategory: ['Credit', 'Tax'] } },
  },
  {
    name: 'untagged, by account and service',
    question: { ...base, ...year, splitBy: ['SubAccountName', 'ServiceName'], grain: null, keep: { 'Tags/team': [null] } },
  },
  { name: 'values of one dimension (SKU)', question: { ...base, ...october, splitBy: ['SkuId'], grain: null } },
  {
    name: 'one resource by day',
    question: { ...base, ...year, splitBy: ['SkuMeter'], grain: 'day', keep: { ResourceName: ['booking-db'] } },
  },
  { name: 'every resource by month', question: { ...base, ...year, splitBy: ['ResourceId'], grain: 'month' } },
]
