<script setup lang="ts">
import { isNeutral } from '#shared/neutral'
import type { Client } from '#shared/schemas/client'
import type { Erased } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** What a client may ask for: everything about them to take away, and to be forgotten. */
const props = defineProps<{ client: Client }>()
const link = useTemplateRef<HTMLAnchorElement>('link')
const { job, running, sentence, begin, stop } = useDataJob(() => nextTick(() => link.value?.click()))
const erasing = ref(false)
/** Their record asks for no numbers: the file holds the page alone, unless somebody says why it holds more. */
const asksNeutral = computed(() => isNeutral(props.client, todayHere()))
const figuresReason = ref('')
const typed = ref('')
const gone = ref<Erased | null>(null)
const problems = useProblems(['name'])
const router = useRouter()

const erase = () =>
  problems.send(async () => {
    gone.value = await calls.erase(props.client.id, typed.value)
  })
</script>

<template>
  <section class="mt-8 grid max-w-3xl gap-3 border-t-2 border-ink pt-3" aria-labelledby="own-data" data-own-data>
    <h2 id="own-data" class="text-lg font-bold">Everything about {{ client.name }}</h2>
    <p class="text-[15px] text-faded">
      On request a client gets all of it: tables, readings, photographs and the page to take home, in one file. Or is
      forgotten: record, readings, photographs and links go for good, and only that an entry was erased stays on record.
    </p>
    <TextField
      v-if="asksNeutral"
      v-model="figuresReason"
      class="max-w-xl"
      label="Why the file holds numbers, if it is to"
      name="figuresReason"
      hint="Neutral mode: without a reason it holds the page to take home alone. The reason goes on record."
      maxlength="300"
      autocomplete="off"
    />
    <JobLine v-if="job && running" :job="job" @stop="stop" />
    <p v-else-if="job?.state === 'done'" class="text-[15px]" data-made>
      <a ref="link" class="underline underline-offset-4" :href="calls.fileOf(job.id)" :download="job.fileName">{{
        job.fileName
      }}</a>
      is made; it can be fetched for two hours.
    </p>
    <p v-if="sentence" role="alert" class="font-semibold text-alert">{{ sentence }}</p>
    <div class="flex flex-wrap gap-3">
      <button
        type="button"
        class="press press-quiet"
        :disabled="running"
        @click="begin(() => calls.ownFile(client.id, asksNeutral ? figuresReason : ''))"
      >
        Make their own file
      </button>
      <button type="button" class="press press-quiet text-alert" @click="erasing = true">Erase ...</button>
    </div>
    <SheetDialog
      v-if="erasing"
      :title="gone ? `${client.name} is erased` : `Erase ${client.name}?`"
      @close="gone ? router.push('/clients') : (erasing = false)"
    >
      <template v-if="gone">
        <p v-if="gone.backups.length === 0">No backup of this installation holds them.</p>
        <template v-else>
          <p>Backups made before still hold them. They are gone by these days at the latest:</p>
          <ul class="mt-2 max-h-48 overflow-y-auto text-[15px]" tabindex="0" aria-label="Backups">
            <li v-for="one in gone.backups" :key="one.name" class="flex gap-3 border-b border-rule py-1">
              <span class="figure min-w-0 flex-1 truncate">{{ one.name }}</span>
              <span>{{ sayDay(one.goneBy) }}</span>
            </li>
          </ul>
        </template>
        <template v-if="gone.files.length > 0">
          <p class="mt-2">Work under way may still hold them. Its files are gone by these hours at the latest:</p>
          <ul class="mt-2 text-[15px]" aria-label="Files">
            <li v-for="one in gone.files" :key="one.about" class="flex gap-3 border-b border-rule py-1">
              <span class="min-w-0 flex-1 truncate">{{ one.about }}</span>
              <span>{{ sayDay(one.goneAt) }}, {{ sayTime(one.goneAt) }}</span>
            </li>
          </ul>
        </template>
        <button type="button" class="press press-first mt-4" @click="router.push('/clients')">To the clients</button>
      </template>
      <form v-else novalidate @submit.prevent="erase">
        <p>
          Everything about them goes for good: visits, readings, photographs, plans, links. Studies they took part in
          lose their turns. It cannot be undone; make their own file first if they want one.
        </p>
        <TextField
          v-model="typed"
          class="mt-3"
          label="Their name, as it stands on record"
          name="name"
          autocomplete="off"
          :problem="problems.byField.value.get('name')"
        />
        <p v-if="problems.ofForm.value" role="alert" class="mt-2 font-semibold text-alert">
          {{ problems.ofForm.value }}
        </p>
        <div class="mt-4 flex gap-2">
          <button class="press press-first min-h-11" :disabled="typed.trim() === ''">Erase for good</button>
          <button type="button" class="press press-quiet min-h-11" @click="erasing = false">Leave it</button>
        </div>
      </form>
    </SheetDialog>
  </section>
</template>
