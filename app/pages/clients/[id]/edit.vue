<script setup lang="ts">
import type { Client, ClientInput } from '#shared/schemas/client'
import { typedClient } from '~/components/client/typed-client'
import { useMe } from '~/stores/me'

useHead({ title: 'Change client, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const client = shallowRef<Client | null>(null)

onMounted(async () => {
  try {
    client.value = await $fetch<Client>(`/api/clients/${id}`)
  } catch (error) {
    showError({ statusCode: problemOf(error).status || 503, message: problemOf(error).message })
  }
})

async function save(input: ClientInput) {
  await $fetch(`/api/clients/${id}`, { method: 'PATCH', body: input })
  await router.push(`/clients/${id}`)
}

async function archive(archived: boolean) {
  await $fetch(`/api/clients/${id}`, { method: 'PATCH', body: { archived } })
  await router.push(archived ? '/clients' : `/clients/${id}`)
}
</script>

<template>
  <div class="mx-auto w-full max-w-5xl px-4 py-6 sm:px-6">
    <h1 class="mb-6 text-3xl font-bold">Change client</h1>
    <ClientForm
      v-if="client"
      :start="typedClient(client, store.units.length)"
      :height-cm="client.heightCm"
      :length-unit="store.units.length"
      action="Keep changes"
      :save="save"
    >
      <NuxtLink :to="`/clients/${id}`" class="press press-quiet min-h-12">Leave as it was</NuxtLink>
      <button type="button" class="press press-quiet ml-auto min-h-12" @click="archive(!client.archived)">
        {{ client.archived ? 'Bring back from the archive' : 'Archive client' }}
      </button>
    </ClientForm>
  </div>
</template>
