<script setup lang="ts">
import type { RetentionDue, RetentionRules } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** How long things are kept, and what has fallen due: shown before anything happens. */
const props = defineProps<{ rules: RetentionRules; due: RetentionDue }>()
const due = ref(props.due)
const problems = useProblems(['clientMonths', 'photoMonths'])
const kept = ref(false)
const asking = ref(false)
const own = reactive({
  clientMonths: props.rules.clientMonths === null ? '' : String(props.rules.clientMonths),
  photoMonths: props.rules.photoMonths === null ? '' : String(props.rules.photoMonths),
})
const months = (text: string) => (text.trim() === '' ? null : Number(text))
const isDue = computed(() => due.value.clients.length > 0 || due.value.photos > 0)

async function keep() {
  kept.value = await problems.send(async () => {
    due.value = await calls.keep({ clientMonths: months(own.clientMonths), photoMonths: months(own.photoMonths) })
  })
}
async function remove() {
  if (!asking.value) return void (asking.value = true)
  await problems.send(async () => {
    const clientIds = due.value.clients.map(({ id }) => id)
    due.value = await calls.removeDue({ clientIds, photos: due.value.photos > 0 })
    asking.value = false
  })
}
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="retention" data-retention>
    <h2 id="retention" class="border-b-2 border-ink pb-2 text-lg font-bold">How long things are kept</h2>
    <form class="grid gap-3" novalidate @submit.prevent="keep">
      <div class="grid gap-3 sm:grid-cols-2">
        <TextField
          v-model="own.clientMonths"
          label="Clients who do not come, months"
          name="clientMonths"
          inputmode="numeric"
          hint="Empty: for good."
          :problem="problems.byField.value.get('clientMonths')"
        />
        <TextField
          v-model="own.photoMonths"
          label="Photographs, months"
          name="photoMonths"
          inputmode="numeric"
          hint="Empty: for good."
          :problem="problems.byField.value.get('photoMonths')"
        />
      </div>
      <p class="flex items-center gap-3">
        <button class="press press-quiet">Keep these rules</button>
        <span v-if="kept" role="status" class="text-[15px] text-faded">Kept. Nothing goes by itself.</span>
      </p>
    </form>
    <div v-if="isDue" class="grid gap-2 border-l-4 border-signal bg-wash p-3" data-due>
      <p>
        Due:
        <template v-if="due.clients.length > 0"
          ><strong>{{ due.clients.length }} {{ due.clients.length === 1 ? 'client' : 'clients' }}</strong> to be erased
        </template>
        <template v-if="due.clients.length > 0 && due.photos > 0"> and </template>
        <template v-if="due.photos > 0"
          ><strong>{{ due.photos }} {{ due.photos === 1 ? 'photograph' : 'photographs' }}</strong> to be
          removed</template
        >.
      </p>
      <ul
        v-if="due.clients.length > 0"
        class="max-h-40 overflow-y-auto text-[15px]"
        tabindex="0"
        aria-label="Clients due"
      >
        <li v-for="one in due.clients" :key="one.id">
          {{ one.name }}<span class="text-faded">, last here {{ sayDay(one.lastOn) }}</span>
        </li>
      </ul>
      <button type="button" class="press justify-self-start text-alert" @click="remove">
        {{ asking ? 'Yes, remove them for good' : 'Remove what is due' }}
      </button>
    </div>
    <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
  </section>
</template>
