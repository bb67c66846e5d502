<script setup lang="ts">
import { useMe } from '~/stores/me'

/** The person's own PIN for locked devices. */
const store = useMe()
const pin = ref('')
const setting = ref(false)
const problems = useProblems(['pin'])
/** How many PINs of this length there are. */
const worth = computed(() => {
  const digits = /^\d{4,8}$/.test(pin.value) ? pin.value.length : 6
  const chance = (5 / 10 ** digits) * 100
  return `${digits === 4 ? 'Four digits are weak: of' : 'Of'} ${(10 ** digits).toLocaleString('en')} PINs five can be tried, which is ${chance.toPrecision(1)} in 100.`
})

async function keep() {
  if (!(await problems.send(() => store.setPin(pin.value)))) return
  pin.value = ''
  setting.value = false
}
</script>

<template>
  <section v-if="store.me" aria-labelledby="pin-title" class="grid content-start gap-3" data-pin>
    <h2 id="pin-title" class="border-b-2 border-ink pb-2 text-lg font-bold">A PIN for locked devices</h2>
    <form v-if="setting" class="grid gap-3" novalidate @submit.prevent="keep">
      <TextField
        v-model="pin"
        label="Six digits (four to eight)"
        name="pin"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        maxlength="8"
        :problem="problems.byField.value.get('pin')"
      />
      <p class="text-[15px] text-faded" data-pin-worth>
        {{ worth }} Five wrong ones in a row, and the password is asked for.
      </p>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first min-h-11">Keep this PIN</button>
        <button type="button" class="press press-quiet min-h-11" @click="setting = false">Leave it</button>
      </div>
    </form>
    <template v-else>
      <p class="text-[15px]" :class="{ 'text-faded': !store.me.hasPin }">
        <template v-if="store.me.hasPin"
          >Set. It opens devices you have signed in on with your password; five wrong ones in a row, and the password is
          asked for.</template
        >
        <template v-else
          >A device several of you use locks when nobody touches it. A PIN opens it with one hand, and only where you
          have signed in with your password.</template
        >
      </p>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="press press-quiet" @click="setting = true">
          {{ store.me.hasPin ? 'Another PIN' : 'Set a PIN' }}
        </button>
        <button
          v-if="store.me.hasPin"
          type="button"
          class="press press-quiet"
          @click="problems.send(() => store.setPin(null))"
        >
          Take it away
        </button>
      </div>
    </template>
  </section>
</template>
