/** The day that it is, in UTC. */
export const today = (): string => new Date().toISOString().slice(0, 10)
