import { openApiDocument } from '../../http/openapi/document'
import { operations } from '../../operations'
import { route } from '../../http/route'

let made: ReturnType<typeof openApiDocument> | null = null

/** The OpenAPI 3.1 document of this interface. */
export default route(operations.server.document, () => (made ??= openApiDocument()))
