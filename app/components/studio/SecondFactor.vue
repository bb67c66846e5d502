<script setup lang="ts">
import { renderSVG } from 'uqr'
import type { SecondFactorBegun, SecondFactorState } from '#shared/schemas/account'
import { own as account } from '~/calls'

/** A code from one's phone beside the password: set up, paper codes, taken away. */
const emit = defineEmits<{ changed: [] }>()
const state = ref<SecondFactorState | null>(null)
const begun = ref<SecondFactorBegun | null>(null)
const codes = ref<string[]>([])
const code = ref('')
const removing = ref(false)
const { problem, tell } = useTelling()
const problems = useProblems(['code'])

onMounted(() =>
  tell(async () => {
    state.value = await account.secondFactor()
  }),
)
const picture = computed(() =>
  begun.value ? `data:image/svg+xml,${encodeURIComponent(renderSVG(begun.value.uri, { border: 2 }))}` : null,
)
const spelled = computed(() => begun.value?.secret.match(/.{1,4}/g)?.join(' ') ?? '')

const begin = () =>
  tell(async () => {
    begun.value = await account.beginSecondFactor()
    code.value = ''
  })
async function confirm() {
  const isOn = await problems.send(async () => {
    const { codes: made, ...now } = await account.confirmSecondFactor(code.value)
    codes.value = made
    state.value = now
  })
  if (!isOn) return
  begun.value = null
  emit('changed')
}
const renew = () =>
  tell(async () => {
    const { codes: made, ...now } = await account.renewCodes()
    codes.value = made
    state.value = now
  })
const remove = () =>
  tell(async () => {
    state.value = await account.removeSecondFactor()
    codes.value = []
    removing.value = false
  })
</script>

<template>
  <section aria-labelledby="second" class="grid content-start gap-3" data-second-factor>
    <h2 id="second" class="border-b-2 border-ink pb-2 text-lg font-bold">A code beside the password</h2>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <div v-if="codes.length > 0" class="grid gap-2 border-l-4 border-signal bg-sheet px-4 py-3" role="status">
      <p class="font-semibold">Ten codes for the day the phone is lost</p>
      <ul class="figure grid grid-cols-2 gap-x-6 gap-y-1 select-all" data-codes>
        <li v-for="one in codes" :key="one">{{ one }}</li>
      </ul>
      <p class="text-[15px] text-faded">
        Write them down, away from the phone. They are not shown again; each works once.
      </p>
      <button type="button" class="press press-quiet justify-self-start" @click="codes = []">I have them</button>
    </div>
    <form v-if="begun && picture" class="grid gap-3" novalidate @submit.prevent="confirm">
      <p>Take this picture with the application on your phone that makes codes, or type what stands under it.</p>
      <img
        :src="picture"
        alt="The secret as a picture for the phone"
        class="size-48 border border-contour bg-[white]"
      />
      <p class="figure text-[15px] break-words select-all" data-secret>{{ spelled }}</p>
      <TextField
        v-model="code"
        label="The code the phone shows now"
        name="code"
        inputmode="numeric"
        autocomplete="one-time-code"
        maxlength="7"
        :problem="problems.byField.value.get('code')"
      />
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first min-h-11">Turn it on</button>
        <button type="button" class="press press-quiet min-h-11" @click="begun = null">Leave it</button>
      </div>
    </form>
    <template v-else-if="state?.since">
      <p>
        On since {{ sayDay(state.since) }}: every sign-in asks for the code your phone shows.
        <span :class="state.codesLeft < 3 && 'font-semibold text-alert'"
          >{{ state.codesLeft }} of ten codes on paper are left.</span
        >
      </p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="press press-quiet" @click="renew">New codes on paper</button>
        <button v-if="!removing" type="button" class="press press-quiet" @click="removing = true">Take it away</button>
        <button v-else type="button" class="press press-first" @click="remove">Yes, the password alone</button>
      </div>
    </template>
    <template v-else-if="state">
      <p class="text-[15px] text-faded">
        Your password alone is not enough: nobody signs in without your phone. Every sign-in then asks for six digits
        from it.
      </p>
      <button type="button" class="press press-quiet justify-self-start" @click="begin">Set it up</button>
    </template>
  </section>
</template>
