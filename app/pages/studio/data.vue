<script setup lang="ts">
import type { DataPage } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

useHead({ title: 'Data, Oak Pinch' })

/** Data in, out and kept. One file on its way in takes the whole page. */
const page = ref<DataPage | null>(null)
const file = ref<{ id: string; name: string } | null>(null)
const done = ref<string | null>(null)
const { problem, tell } = useTelling()
const load = () =>
  tell(async () => {
    page.value = await calls.read()
  })
onMounted(load)

function brought(one: { id: string; name: string }) {
  done.value = null
  file.value = one
}
async function stored(said: string) {
  file.value = null
  done.value = said
  await load()
}
</script>

<template>
  <div class="flex-1 px-4 py-4 sm:px-6">
    <p v-if="problem" role="alert" class="mb-3 font-semibold text-alert">{{ problem }}</p>
    <BringIn v-if="file" :key="file.id" :file="file" @leave="file = null" @done="stored" />
    <div v-else-if="page" class="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <div class="grid content-start gap-8">
        <section class="grid content-start gap-3" aria-labelledby="in">
          <h2 id="in" class="border-b-2 border-ink pb-2 text-lg font-bold">Bring in</h2>
          <DropFile @brought="brought" />
          <p v-if="done" role="status" class="font-semibold" data-done>{{ done }}</p>
          <ImportList v-model="page.imports" />
        </section>
        <BackupPanel :backup="page.backup" @made="load" />
      </div>
      <div class="grid content-start gap-8">
        <TakeOut />
        <RetentionPanel :rules="page.retention" :due="page.due" />
      </div>
    </div>
  </div>
</template>
