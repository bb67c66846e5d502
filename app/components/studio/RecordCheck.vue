<script setup lang="ts">
import type { RecordCheck } from '#shared/schemas/record'
import { studios } from '~/calls'

/** Whether the audit log was changed afterwards: by its own chain, and by an entry that was noted elsewhere. */
defineProps<{
  /** The newest entry with its hash. */
  end: string | null
}>()
const found = ref<RecordCheck | null>(null)
const noted = ref('')
const busy = ref(false)
const problems = useProblems(['noted'])

async function check() {
  busy.value = true
  found.value = null
  await problems.send(async () => {
    found.value = await studios.checkRecord(noted.value.trim() || null)
  })
  busy.value = false
}
</script>

<template>
  <details class="mt-3 rounded border border-rule bg-sheet px-4 py-2" data-record-check>
    <summary class="min-h-9 cursor-pointer py-1 font-semibold">Was anything changed afterwards?</summary>
    <form class="grid max-w-3xl gap-3 py-2" novalidate @submit.prevent="check">
      <p class="text-[15px]">
        Each entry carries a hash of the one before. Write the newest one down outside of this machine; with it you can
        tell later whether the whole log was written anew.
      </p>
      <p v-if="end" class="text-[15px]">
        Newest entry: <span class="figure break-all select-all" data-record-end>{{ end }}</span>
      </p>
      <TextField
        v-model="noted"
        label="An entry you noted earlier (leave empty for none)"
        name="noted"
        autocomplete="off"
        :problem="problems.byField.value.get('noted')"
      />
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
        <button class="press press-first" :disabled="busy">{{ busy ? 'Checking' : 'Check the log' }}</button>
        <p
          v-if="found"
          :role="found.fault ? 'alert' : 'status'"
          class="min-w-0 flex-1"
          :class="found.fault && 'font-semibold text-alert'"
          data-check
        >
          <template v-if="found.fault">{{ found.fault }}</template>
          <template v-else>
            No: all <span class="figure">{{ found.entries }}</span> entries are as they were written and none is
            missing<template v-if="noted.trim()">, the one you noted among them</template>.
          </template>
        </p>
      </div>
    </form>
  </details>
</template>
