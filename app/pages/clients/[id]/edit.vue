<script setup lang="ts">
import type { Client, ClientInput } from '#shared/schemas/client'
import { typedClient } from '~/components/client/typed-client'
import { useMe } from '~/stores/me'
import { clients, staff } from '~/calls'

useHead({ title: 'Change client, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const client = shallowRef<Client | null>(null)
/** What stands there now, beside what was typed here. */
const conflict = shallowRef<{ stored: Client; mine: ClientInput } | null>(null)

const coaches = ref<{ id: string; name: string }[]>([])
const { problem: coachProblem, tell } = useTelling()
useOpening(async () => {
  client.value = await clients.read(id)
  const people = await staff.list().catch(() => [])
  coaches.value = people.filter(({ active, role }) => active && role !== 'recorder')
})
/** Kept at once: it is no part of what the form is about. */
function setCoach(coachId: string) {
  return tell(async () => {
    const changed = await clients.setCoach(id, coachId || null)
    if (changed && client.value) client.value = { ...client.value, coachId: changed.coachId }
    else if (!changed) await router.push('/clients')
  })
}

async function keep(input: ClientInput, version: number) {
  await clients.change(id, { ...input, version })
  await router.push(`/clients/${id}`)
}

async function save(input: ClientInput) {
  conflict.value = null
  await keep(input, client.value?.version ?? 1)
}

async function keepMine() {
  const both = conflict.value
  if (!both) return
  try {
    await keep(both.mine, both.stored.version)
  } catch (error) {
    const { stored } = problemOf(error)
    if (stored) conflict.value = { ...both, stored: stored as Client }
    else showWhy(error)
  }
}

async function archive(archived: boolean) {
  await clients.archive(id, archived)
  await router.push(archived ? '/clients' : `/clients/${id}`)
}
</script>

<template>
  <div class="w-full px-4 py-4 sm:px-6">
    <div class="mb-4 flex flex-wrap items-end gap-x-8 gap-y-2">
      <h1 class="text-3xl font-bold">Change client</h1>
      <ListField
        v-if="client && coaches.length > 1"
        class="ml-auto w-64"
        label="Whose client"
        name="coach"
        :options="[{ id: '', name: 'everybody’s' }, ...coaches]"
        :model-value="client.coachId ?? ''"
        @update:model-value="setCoach"
      />
    </div>
    <p v-if="coachProblem" role="alert" class="mb-3 font-semibold text-alert">{{ coachProblem }}</p>
    <RecordConflict
      v-if="conflict"
      :stored="conflict.stored"
      :mine="conflict.mine"
      :length-unit="store.units.length"
      @mine="keepMine"
      @theirs="router.push(`/clients/${id}`)"
    />
    <ClientForm
      v-if="client"
      :start="typedClient(client, store.units.length)"
      :height-cm="client.heightCm"
      :length-unit="store.units.length"
      action="Keep changes"
      :save="save"
      @conflict="(stored, mine) => (conflict = { stored, mine })"
    >
      <NuxtLink :to="`/clients/${id}`" class="press press-quiet min-h-12">Leave as it was</NuxtLink>
      <button type="button" class="press press-quiet ml-auto min-h-12" @click="archive(!client.archived)">
        {{ client.archived ? 'Bring back from the archive' : 'Archive client' }}
      </button>
    </ClientForm>
    <OwnData v-if="client && store.isLead" :client="client" />
  </div>
</template>
