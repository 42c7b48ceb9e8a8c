/** What stands between the parts of a figure when its Workings are written in a line. */
export const workingSigns = {
  sum: ' + ',
  product: ' × ',
  difference: ' − ',
  quotient: ' ÷ ',
  smaller: ', the smaller of ',
  larger: ', the larger of ',
  ceiling: ' up to a whole ',
} as const
