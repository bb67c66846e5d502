<script setup lang="ts">
import { mails } from '~/calls'

definePageMeta({ layout: 'phone' })
useHead({ title: 'Stop mails' })

const route = useRoute()
const router = useRouter()
const token = route.hash.slice(1)
const stopped = ref<string | null>(null)
const { problem, busy, tell } = useTelling()
onMounted(() => void router.replace('/stop'))
const stop = () =>
  tell(async () => {
    stopped.value = (await mails.stop(token)).studioName
  })
</script>

<template>
  <div class="flex flex-1 flex-col gap-6 pt-10">
    <template v-if="stopped === null">
      <h1 class="text-4xl font-bold">No more mails?</h1>
      <p class="text-xl">One press, and no reminders come any more. Your coach can set them again when you ask.</p>
      <p v-if="problem" role="alert" class="text-lg font-semibold text-alert">{{ problem }}</p>
      <button type="button" class="press press-first mt-auto min-h-16 text-xl" :disabled="busy" @click="stop">
        Stop the mails
      </button>
    </template>
    <template v-else>
      <h1 class="text-4xl font-bold" role="status">Stopped</h1>
      <p class="text-xl">No more reminders from {{ stopped }}.</p>
    </template>
  </div>
</template>
