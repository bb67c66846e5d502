<script setup lang="ts">
import type { LinkDoor } from '#shared/schemas/link'
import { home as calls } from '~/home-calls'

/** The door of a client's link: a PIN chosen at the first opening, or given on another phone. */
const props = defineProps<{ token: string }>()
const emit = defineEmits<{ open: [] }>()

const door = ref<LinkDoor | null>(null)
const pin = ref('')
const again = ref('')
const refused = ref<string | null>(null)
const { problem, busy, tell } = useTelling()

onMounted(() =>
  tell(async () => {
    door.value = await calls.open(props.token)
  }),
)

async function give() {
  refused.value = null
  if (!/^\d{4,8}$/.test(pin.value)) refused.value = 'Four to eight digits.'
  else if (door.value?.pin === 'choose' && pin.value !== again.value)
    refused.value = 'The two are not the same: type it twice.'
  if (refused.value) return
  if (await tell(() => calls.givePin(props.token, pin.value))) emit('open')
}
</script>

<template>
  <form v-if="door" class="flex flex-1 flex-col gap-5" novalidate data-door @submit.prevent="give">
    <div class="grid gap-2 pt-6">
      <h1 class="text-4xl font-bold">{{ door.guardian ? `For ${door.firstName}` : `Hello ${door.firstName}` }}</h1>
      <p class="text-xl text-faded">{{ door.studioName }}</p>
      <p v-if="door.guardian" class="text-lg" data-guardian>This link is for the guardian of {{ door.firstName }}.</p>
    </div>
    <p v-if="door.pin === 'choose'" class="text-xl">Choose a PIN, so that nobody else who holds this link looks in.</p>
    <p v-else class="text-xl">This link was opened on a phone before. Give the PIN that was chosen there.</p>
    <div class="mt-auto grid gap-3">
      <label class="grid gap-1 text-lg font-semibold"
        >PIN
        <input
          v-model="pin"
          name="pin"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="8"
          class="field figure min-h-16 text-3xl tracking-[0.3em]"
          :aria-invalid="refused ? 'true' : undefined"
        />
      </label>
      <label v-if="door.pin === 'choose'" class="grid gap-1 text-lg font-semibold"
        >Once more
        <input
          v-model="again"
          name="again"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          maxlength="8"
          class="field figure min-h-16 text-3xl tracking-[0.3em]"
        />
      </label>
      <p v-if="refused ?? problem" role="alert" class="text-lg font-semibold text-alert">{{ refused ?? problem }}</p>
      <button class="press press-first min-h-16 text-xl" :disabled="busy">
        {{ door.pin === 'choose' ? 'Keep this PIN' : 'Open' }}
      </button>
    </div>
  </form>
  <div v-else class="grid flex-1 content-center gap-4">
    <p v-if="problem" role="alert" class="text-2xl">{{ problem }}</p>
    <p v-else class="text-xl text-faded">Opening …</p>
  </div>
</template>
