/** A line's place in the card: a meter has no blank, and a variant that is not named is another than one that is called nothing. */
export const placeOf = (meter: string, region: string, variant: string | null) =>
  variant === null ? `${meter} ${region}` : `${meter} ${region}\n${variant}`
