<script setup lang="ts">
import type { ImportLine } from '#shared/schemas/data'
import { data as calls } from '~/data-calls'

/** What was brought in, each with a way back. */
const list = defineModel<ImportLine[]>({ required: true })
const { problem, busy, tell } = useTelling()
const asking = ref<string | null>(null)
const about = ({ clients, checkins, weighIns, kind }: ImportLine) =>
  kind === 'archive'
    ? 'an archive, merged'
    : [
        ...(checkins > 0 ? [`${checkins} check-ins`] : []),
        ...(weighIns > 0 ? [`${weighIns} weights`] : []),
        ...(clients > 0 ? [`${clients} new clients`] : []),
      ].join(', ')

async function takeBack(id: string) {
  if (asking.value !== id) return void (asking.value = id)
  await tell(async () => {
    list.value = await calls.takeBack(id)
  })
  asking.value = null
}
</script>

<template>
  <div v-if="list.length > 0" class="grid gap-2" data-imports>
    <h3 class="border-b border-ink pb-1 font-bold">Brought in</h3>
    <ul>
      <li
        v-for="one in list"
        :key="one.id"
        class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2"
        :data-import="one.id"
      >
        <span class="min-w-0 flex-1" :class="{ 'text-faded line-through': one.takenBackAt }">
          <strong class="break-all">{{ one.fileName }}</strong
          ><span class="text-faded">, {{ about(one) }}; {{ one.by }}, {{ sayDay(one.at) }}</span>
        </span>
        <span v-if="one.takenBackAt" class="text-[15px] text-faded">taken back</span>
        <button
          v-else-if="one.kind !== 'archive'"
          type="button"
          class="press press-quiet min-h-9"
          :class="{ 'font-bold text-alert': asking === one.id }"
          :disabled="busy"
          @click="takeBack(one.id)"
        >
          {{ asking === one.id ? 'Yes, take all of it back' : 'Take back' }}
        </button>
      </li>
    </ul>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </div>
</template>
