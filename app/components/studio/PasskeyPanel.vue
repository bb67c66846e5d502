<script setup lang="ts">
import type { PasskeyRecord } from '#shared/schemas/passkey'
import { own } from '~/calls'
import { canPasskey } from '~/passkey-support'

/** One's own passkeys: made on this device, named, taken away. */
const emit = defineEmits<{ changed: [] }>()
const all = ref<PasskeyRecord[] | null>(null)
const { problem, tell, busy } = useTelling()
const can = ref(true)

onMounted(() => {
  can.value = canPasskey()
  return tell(async () => {
    all.value = await own.passkeys()
  })
})

/** As the list of sessions calls this browser's system. */
const deviceName = () =>
  /iPad|iPhone|Android|Windows|Mac OS|CrOS|Linux/.exec(navigator.userAgent)?.[0].replace('Mac OS', 'Mac') ??
  'This device'

async function make() {
  const { makePasskey } = await import('~/passkeys')
  const isMade = await tell(async () => {
    all.value = await makePasskey(deviceName())
  })
  if (isMade) emit('changed')
}
const remove = (id: string) =>
  tell(async () => {
    all.value = await own.removePasskey(id)
  })
</script>

<template>
  <section aria-labelledby="passkeys" class="grid content-start gap-3" data-passkeys>
    <h2 id="passkeys" class="border-b-2 border-ink pb-2 text-lg font-bold">Passkeys</h2>
    <p class="text-[15px] text-faded">
      Your device proves who you are, by finger, face or its own digits: no password that could be learnt or given away,
      and no code beside it.
    </p>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <ul v-if="all && all.length > 0">
      <li
        v-for="one in all"
        :key="one.id"
        class="flex min-h-13 flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule py-2"
      >
        <span class="min-w-32 font-semibold">{{ one.name }}</span>
        <span class="flex-1 text-[15px] text-faded"
          >since {{ sayDay(one.addedAt) }}, {{ one.usedAt ? `last used ${sayAgo(one.usedAt)}` : 'not used yet' }}</span
        >
        <button type="button" class="press press-quiet" @click="remove(one.id)">Take it away</button>
      </li>
    </ul>
    <!-- Once the list is there: a button that moves under the finger is missed. -->
    <button v-if="can && all" type="button" class="press press-quiet justify-self-start" :disabled="busy" @click="make">
      Make one on this device
    </button>
    <p v-else-if="!can" class="text-[15px] text-faded">
      Browsers make passkeys only at an address that begins with https: here it does not.
    </p>
  </section>
</template>
