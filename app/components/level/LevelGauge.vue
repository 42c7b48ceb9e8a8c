<script setup lang="ts">
/** The Level: a quantity against a limit, as a barrel on its side. Shares are of the limit; beyond it the staves end and a stem goes on. */
const props = withDefaults(
  defineProps<{ width?: number; height?: number; used: number; notches?: number[]; label: string; tone?: 'act' | 'warn' | 'bad' }>(),
  { width: 260, height: 14, notches: () => [], tone: undefined },
)

const id = useId()
const over = computed(() => props.used > 1)
/** Pixels at the limit. */
const full = computed(() => (over.value ? props.width / (Math.min(props.used, 2) * 1.03) : props.width))
const reach = computed(() => Math.min(props.used, 2) * full.value)
const fill = computed(() => `var(--${props.tone ?? (over.value ? 'bad' : 'act')})`)
const barrel = computed(() => {
  const h = props.height
  const x = full.value
  const r = h * 0.34
  const e = h * 0.1
  return `M2,${e + 1} Q${x / 2},${-h * 0.13} ${x - 2},${e + 1} Q${x + r * 0.5},${h / 2} ${x - 2},${h - e - 1} Q${x / 2},${h * 1.13} 2,${h - e - 1} Q${-r * 0.5},${h / 2} 2,${e + 1}Z`
})
</script>

<template>
  <svg :width="width" :height="height + 2" :viewBox="`-2 -2 ${width + 4} ${height + 4}`" role="img" :aria-label="label" class="gauge">
    <defs>
      <clipPath :id="id"><path :d="barrel" /></clipPath>
    </defs>
    <path :d="barrel" fill="var(--paper-raised)" stroke="var(--line-strong)" />
    <g :clip-path="`url(#${id})`">
      <rect x="-5" y="-5" :width="Math.max(0, Math.min(reach, full) + 5)" :height="height + 10" :fill="fill" opacity=".88" />
      <line
        v-for="notch in notches"
        :key="notch"
        :x1="notch * full"
        :x2="notch * full"
        y1="-4"
        :y2="height + 4"
        stroke="var(--ink)"
        stroke-opacity=".45"
        stroke-width="1.5"
      />
    </g>
    <path :d="barrel" fill="none" stroke="var(--ink-3)" stroke-width="1.2" />
    <template v-if="over">
      <line :x1="full" :x2="reach" :y1="height / 2" :y2="height / 2" stroke="var(--bad)" stroke-width="2" />
      <line :x1="reach" :x2="reach" y1="-2" :y2="height + 2" stroke="var(--bad)" stroke-width="2" />
    </template>
  </svg>
</template>

<style scoped>
.gauge {
  overflow: visible;
  display: block;
  flex: none;
}
</style>
