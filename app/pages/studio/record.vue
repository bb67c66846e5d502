<script setup lang="ts">
import { CHANGE_WORDS } from '#shared/change-words'
import type { RecordLine } from '#shared/schemas/record'
import type { Picked } from '~/components/forms/picked'
import { clients as calls, staff, studios } from '~/calls'

useHead({ title: 'Record, Oak Pinch' })

const lines = ref<RecordLine[]>([])
const next = ref<string | null>(null)
const end = ref<string | null>(null)
const { problem, tell } = useTelling()
const people = ref<Picked[]>([])
const clients = ref<Picked[]>([])
const staffId = ref<string | null>(null)
const clientId = ref<string | null>(null)
const kind = ref<string | null>(null)
const day = ref('')
const kinds: Picked[] = Object.entries(CHANGE_WORDS).map(([id, name]) => ({ id, name }))

function take(before: string | null) {
  const query = { staffId: staffId.value, clientId: clientId.value, kind: kind.value, day: day.value || null, before }
  return tell(async () => {
    const page = await studios.record(query)
    lines.value = before ? [...lines.value, ...page.lines] : page.lines
    next.value = page.next
    end.value = page.end
  })
}

async function findClients(q: string) {
  const page = await calls.find(q).catch(() => null)
  if (page) clients.value = page.clients.map(({ id, name }) => ({ id, name }))
}

onMounted(async () => {
  await take(null)
  people.value = await staff.list().catch(() => [])
  await findClients('')
})
watch([staffId, clientId, kind, day], () => take(null))

function whom({ client, subject }: RecordLine): string {
  return client ?? subject ?? ''
}
</script>

<template>
  <div class="w-full px-4 py-5 sm:px-6">
    <h2 class="sr-only">Record</h2>
    <div class="grid grid-cols-2 gap-x-4 gap-y-3 lg:grid-cols-[1fr_1fr_1fr_200px]">
      <PickField v-model="staffId" label="By" name="staffId" :options="people" none="anybody" />
      <PickField v-model="clientId" label="Client" name="clientId" :options="clients" none="any" @find="findClients" />
      <PickField v-model="kind" label="What" name="kind" :options="kinds" none="anything" />
      <TextField v-model="day" label="Day" name="day" type="date" :max="todayHere()" />
    </div>
    <RecordCheck :end="end" />
    <p v-if="problem" role="alert" class="mt-4 font-semibold text-alert">{{ problem }}</p>
    <ScrollTable label="The record, newest first" class="mt-4">
      <table class="ruled max-sm:block" data-record>
        <thead class="max-sm:sr-only">
          <tr>
            <th scope="col" class="w-44">When</th>
            <th scope="col" class="w-56">Who</th>
            <th scope="col">What</th>
            <th scope="col">Whom</th>
          </tr>
        </thead>
        <tbody class="max-sm:block">
          <tr
            v-for="line in lines"
            :key="line.id"
            class="max-sm:flex max-sm:flex-wrap max-sm:gap-x-1.5 max-sm:border-b max-sm:border-rule max-sm:py-2"
          >
            <td
              class="figure !py-1.5 text-[15px] whitespace-nowrap max-sm:w-full max-sm:!border-0 max-sm:!p-0 max-sm:text-faded"
            >
              {{ sayTime(line.at, 'd MMM yyyy HH:mm') }}
            </td>
            <td class="!py-1.5 max-sm:!border-0 max-sm:!p-0">
              {{ line.by ?? (line.actor === 'system' ? 'Oak Pinch' : 'a client') }}
            </td>
            <td class="!py-1.5 max-sm:!border-0 max-sm:!p-0">{{ line.words }}</td>
            <td class="!py-1.5 max-sm:!border-0 max-sm:!p-0">
              <NuxtLink v-if="line.clientId && line.client" :to="`/clients/${line.clientId}`" class="underline">{{
                line.client
              }}</NuxtLink>
              <template v-else>{{ whom(line) }}</template>
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
    <p v-if="lines.length === 0 && !problem" class="py-4 text-faded">Nothing here by these filters.</p>
    <button v-if="next" type="button" class="press press-quiet mt-4" @click="take(next)">Earlier</button>
  </div>
</template>
