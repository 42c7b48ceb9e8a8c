import type { Component, Estimate } from '../estimate'

/** A cost that an estimate most likely lacks: why, and the component that would fill it with sensible values. */
export type BlindSpotFound = { id: string, title: string, reason: string, add: Pick<Component, 'part' | 'kind' | 'inputs'> }

/** One rule for one blind spot. */
export type BlindSpot = { id: string, find: (estimate: Estimate) => Omit<BlindSpotFound, 'id'> | null }
