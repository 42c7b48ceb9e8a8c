/** Said behind the name of a licensed system or engine that one's own licence is used for. */
export const broughtAlong = ', own licence'
