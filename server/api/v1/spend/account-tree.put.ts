import { accountTree } from '../../../../shared/contracts/spend-settings'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'
import { changeReference } from '../../../stores/spend-reference'

/** Where accounts stand in the account tree, and the tags that accounts and containers hand down; in place of what was there. */
export default route(async ({ event, database, cube, who }) => {
  const tree = await body(event, accountTree, fileBody)
  await changeReference(database.db, who, known => ({ body: { ...known, ...tree }, result: undefined }))
  await cube.refreshReference()
  return { accounts: Object.keys(tree.accounts).length, containers: Object.keys(tree.containerTags).length }
})
