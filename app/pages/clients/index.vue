<script setup lang="ts">
import { Plus } from '@lucide/vue'
import { ageInYears } from '#core/composition'
import type { ClientLine, ClientPage } from '#shared/schemas/client'

useHead({ title: 'Clients, Oak Pinch' })

const route = useRoute()
const router = useRouter()
const q = ref(String(route.query.q ?? ''))
const archived = ref(false)
const lines = ref<ClientLine[]>([])
const next = ref<string | null>(null)
const loaded = ref(false)
const problem = ref<string | null>(null)
const today = new Date().toISOString()

let asked = 0
async function load(after?: string) {
  const mine = ++asked
  try {
    const page = await $fetch<ClientPage>('/api/clients', {
      query: { q: q.value, archived: archived.value, ...(after ? { after } : {}) },
    })
    // An answer overtaken by a later question is dropped: what is shown fits what is typed.
    if (mine !== asked) return
    lines.value = after ? [...lines.value, ...page.clients] : page.clients
    next.value = page.next
    loaded.value = true
    problem.value = null
  } catch (error) {
    problem.value = problemOf(error).message
  }
}

watch([q, archived], () => load(), { immediate: true })
watch(
  () => route.query.q,
  (found) => {
    q.value = String(found ?? '')
  },
)

function openFirst() {
  const [first] = lines.value
  if (first) void router.push(`/clients/${first.id}`)
}
</script>

<template>
  <div class="mx-auto w-full max-w-6xl px-4 py-6 sm:px-6">
    <div class="flex flex-wrap items-center gap-4">
      <h1 class="text-3xl font-bold">Clients</h1>
      <input
        v-model="q"
        type="search"
        class="field ml-auto max-w-64"
        aria-label="Find by name"
        placeholder="Find by name"
        @keydown.enter="openFirst"
      />
      <label class="flex min-h-11 items-center gap-2">
        <input v-model="archived" type="checkbox" class="size-5 accent-ink" /> archived
      </label>
      <NuxtLink to="/clients/new" class="press press-first min-h-11"><Plus class="size-4" /> Add client</NuxtLink>
    </div>
    <p v-if="problem" role="alert" class="mt-4 font-semibold text-alert">
      {{ problem }}
    </p>
    <p v-if="loaded && lines.length === 0" class="mt-8 text-faded">
      {{ q ? `Nobody is called “${q}” here.` : archived ? 'Nobody is archived.' : 'No clients yet.' }}
    </p>
    <table v-else-if="loaded" class="ruled mt-4">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col" class="right">Age</th>
          <th scope="col" class="right max-sm:hidden">Check-ins</th>
          <th scope="col" class="right">Last measured</th>
          <th scope="col" class="right"><span class="sr-only">Measure</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id">
          <td>
            <NuxtLink :to="`/clients/${line.id}`" class="block py-1 font-semibold">{{ line.name }}</NuxtLink>
          </td>
          <td class="figure right">{{ ageInYears(line.birthDate, today) }}</td>
          <td class="figure right max-sm:hidden">{{ line.checkins }}</td>
          <td class="right whitespace-nowrap">{{ line.lastCheckinAt ? sayAgo(line.lastCheckinAt) : 'not yet' }}</td>
          <td class="right">
            <NuxtLink
              v-if="!line.archived"
              :to="line.openCheckinId ? `/measure/${line.openCheckinId}` : `/clients/${line.id}/measure`"
              class="press press-quiet"
              :aria-label="`${line.openCheckinId ? 'Go on measuring' : 'Measure'} ${line.name}`"
            >
              {{ line.openCheckinId ? 'Go on' : 'Measure' }}
            </NuxtLink>
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="next" class="press mt-4" @click="load(next)">Show more</button>
  </div>
</template>
