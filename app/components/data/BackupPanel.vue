<script setup lang="ts">
import type { BackupStatus } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** The last good backup, said first: somebody looks here when something is wrong. */
const props = defineProps<{ backup: BackupStatus }>()
const emit = defineEmits<{ made: [] }>()
const { job, running, sentence, begin, stop } = useDataJob(() => emit('made'))
const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
const last = computed(() => props.backup.last)
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="backup" data-backup>
    <h2 id="backup" class="border-b-2 border-ink pb-2 text-lg font-bold">Backup</h2>
    <p v-if="last" :class="{ 'font-semibold text-alert': backup.missed }">
      <template v-if="backup.missed">A night’s backup was missed. </template>The last good one is of
      <strong>{{ sayDay(last.at) }}, {{ sayTime(last.at) }}</strong
      ><span class="figure text-faded"> ({{ size(last.bytes) }}, read back whole)</span>.
    </p>
    <p v-else :class="backup.missed ? 'font-semibold text-alert' : ''">There is no backup yet.</p>
    <p class="text-[15px] text-faded">
      One is made each night after two o’clock and read back before it counts: the newest of 7 days, 4 weeks and 12
      months are kept<template v-if="backup.count > 0"
        >; now {{ backup.count }}, together {{ size(backup.bytes) }}</template
      >. It holds everything, passwords as hashes: guard its folder, and keep a copy elsewhere.
    </p>
    <JobLine v-if="job && running" :job="job" @stop="stop" />
    <button v-else type="button" class="press justify-self-start" @click="begin(calls.backUp)">Back up now</button>
    <p v-if="sentence" role="alert" class="font-semibold text-alert">{{ sentence }}</p>
  </section>
</template>
