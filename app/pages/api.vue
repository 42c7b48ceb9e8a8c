<script setup lang="ts">
import { z } from 'zod'

/** The HTTP interface, read from the document that is made from its contracts. */
useHead({ title: 'HTTP interface · Rain Barrel' })
type Schema = {
  type?: string | string[]
  properties?: Record<string, Schema>
  items?: Schema
  enum?: unknown[]
  anyOf?: Schema[]
  required?: string[]
  additionalProperties?: Schema | boolean
  description?: string
  format?: string
  const?: unknown
}
type Content = Record<string, { schema: Schema }>
type Operation = {
  tags: string[]
  summary: string
  parameters: { name: string; in: string; required: boolean; schema: Schema }[]
  requestBody?: { content: Content }
  responses: Record<string, { content: Content }>
}
const paths = ref<[string, string, Operation][]>([])
const sought = ref('')
const open = ref<string | null>(null)
const { attempt, problem } = useAttempt()
onMounted(() =>
  attempt(async () => {
    const document = await client.get(
      'openapi.json',
      z.object({
        paths: z.record(
          z.string(),
          z.record(
            z.string(),
            z.custom<Operation>(value => typeof value === 'object' && value !== null),
          ),
        ),
      }),
    )
    paths.value = Object.entries(document.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]): [string, string, Operation] => [method, path, operation]),
    )
  }),
)
const shown = computed(() =>
  paths.value.filter(([method, path, operation]) =>
    `${method} ${path} ${operation.summary}`.toLowerCase().includes(sought.value.trim().toLowerCase()),
  ),
)
const tags = computed(() => [...new Set(shown.value.map(([, , operation]) => operation.tags[0]!))])
const MOST_DEPTH = 3
/** A schema in words, as deep as one reads. */
function words(schema: Schema | undefined, depth = 0): string {
  if (!schema) return ''
  if (schema.enum) return schema.enum.map(v => JSON.stringify(v)).join(' | ')
  if (schema.const !== undefined) return JSON.stringify(schema.const)
  if (schema.anyOf) return schema.anyOf.map(s => words(s, depth)).join(' | ')
  if (schema.type === 'array') return `[ ${words(schema.items, depth)} … ]`
  if (schema.properties) {
    if (depth >= MOST_DEPTH) return '{ … }'
    return `{ ${Object.entries(schema.properties)
      .map(([name, s]) => `${name}${schema.required?.includes(name) ? '' : '?'}: ${words(s, depth + 1)}`)
      .join(', ')} }`
  }
  if (schema.additionalProperties && typeof schema.additionalProperties === 'object')
    return `{ name: ${words(schema.additionalProperties, depth + 1)} }`
  return String(schema.type ?? 'anything')
}
const contentWords = (content: Content) =>
  Object.entries(content)
    .map(([mime, { schema }]) => (mime === 'application/json' ? words(schema) : mime))
    .join(' | ')
const reply = (operation: Operation) =>
  Object.entries(operation.responses)
    .filter(([status]) => status !== 'default')
    .map(([status, { content }]) => `${status}: ${contentWords(content)}`)
    .join('; ')
</script>

<template>
  <div class="page">
    <h1 class="sentence">Everything the interface does is also available over HTTP, under <code>/api/v1</code>.</h1>
    <p class="note">
      The same document for programs: <a class="link" href="/api/v1/openapi.json">openapi.json</a> (OpenAPI 3.1). Errors come as problem
      details (RFC 9457).
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <input v-model="sought" class="field search" placeholder="Search" aria-label="Search the interface" />
    <section v-for="tag in tags" :key="tag" class="tag">
      <h2 class="heading">{{ tag }}</h2>
      <table class="ledger">
        <tbody>
          <template v-for="[method, path, operation] in shown.filter(([, , o]) => o.tags[0] === tag)" :key="method + path">
            <tr class="acts">
              <td class="method">{{ method.toUpperCase() }}</td>
              <td class="path">
                <button class="link" :aria-expanded="open === method + path" @click="open = open === method + path ? null : method + path">
                  {{ path }}
                </button>
              </td>
              <td>{{ operation.summary }}</td>
            </tr>
            <tr v-if="open === method + path">
              <td colspan="3" class="detail">
                <p v-for="parameter in operation.parameters" :key="parameter.name">
                  <b>{{ parameter.name }}</b>{{ parameter.required ? '' : ', optional' }}, in the {{ parameter.in }}:
                  <code>{{ words(parameter.schema) }}</code>
                </p>
                <p v-if="operation.requestBody">
                  <b>body</b> <code>{{ contentWords(operation.requestBody.content) }}</code>
                </p>
                <p>
                  <b>answer</b> <code>{{ reply(operation) }}</code>
                </p>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
.search {
  width: 300px;
  margin: 8px 0;
}
.tag {
  margin-top: 12px;
}
.method {
  width: 70px;
  color: var(--ink-3);
  font-size: 12px;
}
.path {
  width: 320px;
}
.detail {
  background: var(--paper-sunk);
}
.detail p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}
code {
  background: var(--paper-sunk);
  padding: 0 4px;
  border-radius: 3px;
}
</style>
