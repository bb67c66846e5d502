<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { ClientInput } from '#shared/schemas/client'
import { emptyClient } from '~/components/client/typed-client'
import { useMe } from '~/stores/me'
import { clients } from '~/calls'

useHead({ title: 'Add client, Oak Pinch' })

const store = useMe()
const router = useRouter()
const id = uuid()

async function save(input: ClientInput) {
  try {
    await clients.add({ id, ...input })
  } catch (error) {
    if (problemOf(error).status !== 409) throw error
    // An earlier try reached the server though its answer did not come back: what has been changed since is a change.
    const { version } = await clients.read(id)
    await clients.change(id, { ...input, version })
  }
  await router.push(`/clients/${id}`)
}
</script>

<template>
  <div class="w-full px-4 py-4 sm:px-6">
    <h1 class="mb-4 text-3xl font-bold">Add client</h1>
    <ClientForm
      :start="emptyClient()"
      :height-cm="null"
      :length-unit="store.units.length"
      action="Add client"
      :save="save"
    >
      <NuxtLink to="/clients" class="press press-quiet min-h-12">Leave</NuxtLink>
    </ClientForm>
  </div>
</template>
