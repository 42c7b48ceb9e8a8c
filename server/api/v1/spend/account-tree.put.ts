import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { changeReference } from '../../../stores/spend-reference'

/** Where accounts stand in the account tree, and the tags that accounts and containers hand down; in place of what was there. */
export default route(operations.spend.saveAccountTree, async ({ database, cube, who, body: tree }) => {
  await changeReference(database.db, who, known => ({ body: { ...known, ...tree }, result: undefined }))
  await cube.refreshReference()
  return { accounts: Object.keys(tree.accounts).length, containers: Object.keys(tree.containerTags).length }
})
