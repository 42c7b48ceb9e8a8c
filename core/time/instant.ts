/** An instant as it stands in answers and files: `2026-10-01T00:00:00Z`. @param text any text of an instant that a Date reads. */
export const isoInstant = (text: string): string => new Date(text).toISOString().replace('.000Z', 'Z')

/** The same of seconds since 1970. */
export const instantOf = (seconds: number): string => new Date(seconds * 1000).toISOString().replace('.000Z', 'Z')
