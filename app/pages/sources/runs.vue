<script setup lang="ts">
import { everyWords } from '../../../core/time/rhythm'
import { NOBODY, type JobChange, type JobView } from '../../../shared/contracts/jobs'

/** Everything that runs by itself: how often, when next, and what came of it the last time. */
const jobs = useJobs()
const { attempt, problem, busy } = useAttempt()
useHead({ title: 'Automatic jobs · Rain Barrel' })
const changing = ref<number | null>(null)
const load = () => attempt(() => jobs.load())
onMounted(() => {
  jobs.watchJobs(true)
  void load()
})
onUnmounted(() => jobs.watchJobs(false))

/** What runs first, then what someone should look at, then what is due next; last what is done when someone asks. */
const rank = ({ state, due, paused }: JobView) =>
  state === 'running' ? 0 : state === 'failed' || state === 'not known' ? 1 : due && !paused ? 2 : 3
const ordered = computed(() =>
  [...(jobs.list ?? [])].sort((a, b) => rank(a) - rank(b) || (a.due ?? '').localeCompare(b.due ?? '') || a.id - b.id),
)
const regular = computed(() => (jobs.list ?? []).filter(job => job.every !== null && !job.paused).length)
const running = computed(() => (jobs.list ?? []).filter(job => job.state === 'running').length)
const words = { waiting: 'not run yet', running: 'running', done: 'done', failed: 'failed', 'not known': 'not known', stopped: 'stopped' }
const nextText = (job: JobView) => {
  if (job.paused) return 'paused'
  if (job.state === 'running') return 'now'
  if (!job.due) return job.every ? '' : 'on request'
  return timeText(job.due)
}
const shareOf = ({ progress }: JobView) => (progress?.of ? Math.min(100, Math.round((progress.done / progress.of) * 100)) : null)
async function change(id: number, changed: JobChange) {
  if (await attempt(() => jobs.change(id, changed))) changing.value = null
}
</script>

<template>
  <div class="page">
    <PlaceNav place="Sources" />
    <h1 class="sentence">
      <template v-if="jobs.list"
        >{{ regular }} {{ regular === 1 ? 'job runs' : 'jobs run' }} automatically<template v-if="running"
          >, {{ running }} {{ running === 1 ? 'is' : 'are' }} running now</template
        ><template v-if="jobs.wanting.length"
          >; {{ jobs.wanting.length }} {{ jobs.wanting.length === 1 ? 'needs' : 'need' }} attention</template
        >.</template
      >
      <template v-else>Reading…</template>
    </h1>
    <ProblemNote v-if="problem" :problem="problem" :retry="load" />
    <p v-if="jobs.list && !jobs.list.length" class="note">
      Nothing runs automatically yet. Watch a folder under <NuxtLink class="link" to="/sources">Deliveries</NuxtLink>, make a
      <NuxtLink class="link" to="/sources/connections">connection</NuxtLink>, or give a
      <NuxtLink class="link" to="/spend/saved">saved sentence</NuxtLink> a schedule.
    </p>
    <div v-if="jobs.list?.length" class="scroll" tabindex="0" role="group" aria-label="jobs">
      <table class="ledger">
        <thead>
          <tr>
            <th>what</th>
            <th>how often</th>
            <th>next</th>
            <th>last outcome</th>
            <th>tell</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="job in ordered" :key="job.id">
            <tr :class="{ chosen: changing === job.id }" :data-job="job.kind">
              <td class="what">
                <b>{{ job.does }}</b>
                <div class="minor">
                  <NuxtLink v-if="job.page" class="link" :to="job.page">{{ job.about }}</NuxtLink><template v-else>{{
                    job.about
                  }}</template>
                </div>
              </td>
              <td>{{ job.every ? everyWords(job.every) : 'on request' }}</td>
              <td :class="{ minor: job.paused || !job.due }">{{ nextText(job) }}</td>
              <td class="outcome">
                <template v-if="job.state === 'running'">
                  <b>running</b>
                  <span v-if="job.progress"
                    >, {{ shareOf(job) === null ? '' : `${shareOf(job)} %` }} <span class="minor">{{ job.progress.words }}</span></span
                  >
                  <span v-if="job.step" class="minor"> {{ job.step }}</span>
                </template>
                <template v-else>
                  <b class="state" :class="job.state.replace(' ', '-')">{{ words[job.state] }}</b>
                  <span v-if="job.endedAt" class="minor"> {{ timeText(job.endedAt) }}</span>
                  <div v-if="job.outcome" class="said">{{ job.outcome }}</div>
                  <div v-if="job.attempts" class="minor">
                    {{ job.attempts }} {{ job.attempts === 1 ? 'failure' : 'failures' }} in a row<template v-if="job.doneAt"
                      >; last went well {{ timeText(job.doneAt) }}</template
                    >
                  </div>
                </template>
              </td>
              <td :class="{ minor: job.tell === NOBODY }">{{ job.tell }}</td>
              <td class="acts">
                <button v-if="job.state !== 'running'" class="link" @click="attempt(() => jobs.act(job.id, 'run'))">Run now</button>
                <button v-else-if="job.stops" class="link" @click="attempt(() => jobs.act(job.id, 'stop'))">Stop</button>
                <button v-if="job.every" class="link" @click="change(job.id, { paused: !job.paused })">
                  {{ job.paused ? 'Resume' : 'Pause' }}
                </button>
                <button
                  v-if="job.kind !== 'load'"
                  class="link"
                  :aria-expanded="changing === job.id"
                  @click="changing = changing === job.id ? null : job.id"
                >
                  Change
                </button>
              </td>
            </tr>
            <tr v-if="changing === job.id">
              <td colspan="6"><JobSettings :job="job" :busy="busy" @change="change(job.id, $event)" @cancel="changing = null" /></td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.ledger td {
  vertical-align: top;
  padding-top: 6px;
  padding-bottom: 6px;
}
.what {
  max-width: 320px;
  overflow-wrap: anywhere;
}
.outcome {
  max-width: 430px;
}
.said {
  overflow-wrap: anywhere;
}
.state.failed,
.state.not-known {
  color: var(--bad);
}
.state + .minor {
  margin-left: 8px;
}
.acts {
  white-space: nowrap;
}
.acts .link + .link {
  margin-left: 12px;
}
</style>
