<script setup lang="ts">
import type { BackupStatus } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** The last good backup and what its checks found: people look here when something is wrong. */
const props = defineProps<{ backup: BackupStatus }>()
const emit = defineEmits<{ made: [] }>()
const { job, running, sentence, begin, stop } = useDataJob(() => emit('made'))
const size = (bytes: number) =>
  bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
const last = computed(() => props.backup.last)
const { problem, busy, tell } = useTelling()
const accept = () =>
  tell(async () => {
    await calls.acceptDamage()
    emit('made')
  })
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="backup" data-backup>
    <h2 id="backup" class="border-b-2 border-ink pb-2 text-lg font-bold">Backup</h2>
    <div v-if="backup.damage" class="grid gap-2 border-l-4 border-alert pl-3" role="alert" data-damage>
      <p class="font-semibold text-alert">The database is damaged. {{ backup.damage.sentence }}</p>
      <p class="text-[15px]">
        Found on {{ sayDay(backup.damage.at) }} at {{ sayTime(backup.damage.at) }}. No older backup is removed until
        this is settled. Restore the last good backup into a new folder (docs/operating.md), or keep the database as it
        is if you know why rows are missing.
      </p>
      <button type="button" class="press justify-self-start" :disabled="busy" @click="accept">
        Keep the database as it is
      </button>
      <p v-if="problem" class="font-semibold text-alert">{{ problem }}</p>
    </div>
    <p v-if="last" :class="{ 'font-semibold text-alert': backup.missed }" data-last-backup>
      <template v-if="backup.ahead">
        The newest backup is dated in the future: the clock of this machine was wrong then, or is wrong now. Please set
        it. It is dated
      </template>
      <template v-else>
        <template v-if="backup.missed">A night’s backup was missed. </template>The last good one is of
      </template>
      <strong>{{ sayDay(last.at) }}, {{ sayTime(last.at) }}</strong
      ><span class="figure text-faded"> ({{ size(last.bytes) }}, read back whole)</span>.
    </p>
    <p v-else :class="backup.missed ? 'font-semibold text-alert' : ''">There is no backup yet.</p>
    <p v-if="last?.record" class="text-[15px] text-faded" data-backup-record>
      Its audit log ends with entry <span class="figure break-all select-all">{{ last.record }}</span>. Noted elsewhere,
      it can be checked under Studio, Record.
    </p>
    <p v-if="backup.trial?.fault" class="font-semibold text-alert" data-trial>
      The last backup could not be restored as a trial on {{ sayDay(backup.trial.at) }}: {{ backup.trial.fault }}
    </p>
    <p v-else-if="backup.trial" data-trial>
      Restored as a trial on {{ sayDay(backup.trial.at) }}:
      <span class="figure">{{ backup.trial.rows.toLocaleString('en') }}</span> rows, every one there.
    </p>
    <p class="text-[15px] text-faded">
      One is made each night after two o’clock and read back before it counts; once a week it is restored as a trial.
      The last seven and the newest of 7 days, 4 weeks and 12 months are kept<template v-if="backup.count > 0"
        >; now {{ backup.count }}, together {{ size(backup.bytes) }}</template
      >. A backup holds everything, passwords as hashes: guard its folder, and keep a copy elsewhere.
    </p>
    <JobLine v-if="job && running" :job="job" @stop="stop" />
    <button v-else type="button" class="press justify-self-start" @click="begin(calls.backUp)">Back up now</button>
    <p v-if="sentence" role="alert" class="font-semibold text-alert">{{ sentence }}</p>
  </section>
</template>
