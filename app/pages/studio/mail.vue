<script setup lang="ts">
import type { Mailbox } from '#shared/schemas/mail'
import { mails as calls } from '~/calls'
import { useMe } from '~/stores/me'

useHead({ title: 'Mail, Oak Pinch' })

const store = useMe()
const box = ref<Mailbox | null>(null)
const shown = ref('')
const { problem, busy, tell } = useTelling()
onMounted(() =>
  tell(async () => {
    box.value = await calls.list()
    shown.value = box.value.mails[0]?.id ?? ''
  }),
)
const mail = computed(() => box.value?.mails.find(({ id }) => id === shown.value) ?? null)
const HOURS = Array.from({ length: 24 }, (_, id) => ({ id, name: `${String(id).padStart(2, '0')}:00` }))
const from = computed({
  get: () => store.me?.rules.quietFrom ?? 20,
  set: (quietFrom) => void tell(() => store.setRules({ quietFrom })),
})
const to = computed({
  get: () => store.me?.rules.quietTo ?? 8,
  set: (quietTo) => void tell(() => store.setRules({ quietTo })),
})
const look = () =>
  tell(async () => {
    box.value = await calls.sendNow()
    shown.value ||= box.value.mails[0]?.id ?? ''
  })
</script>

<template>
  <div
    class="grid w-full gap-x-10 gap-y-6 px-4 py-4 sm:px-6 lg:grid-cols-[minmax(280px,380px)_minmax(0,1fr)_minmax(260px,320px)]"
  >
    <section aria-labelledby="mailbox" class="grid content-start gap-1">
      <h2 id="mailbox" class="border-b-2 border-ink pb-1 text-lg font-bold">Mailbox</h2>
      <p v-if="box && box.mails.length === 0" class="py-2 text-faded">
        Nothing has been written yet. Reminders are set at a client, under From home.
      </p>
      <ul>
        <li v-for="one in box?.mails" :key="one.id" class="border-b border-rule">
          <button
            type="button"
            class="w-full px-2 py-2 text-left"
            :class="one.id === shown ? 'bg-wash shadow-[inset_3px_0_0_var(--signal)]' : 'hover:bg-wash'"
            :aria-current="one.id === shown ? 'true' : undefined"
            @click="shown = one.id"
          >
            <span class="block truncate font-semibold">{{ one.subject }}</span>
            <span class="block truncate text-sm text-faded"
              >{{ one.to }}, {{ sayDay(one.at) }} {{ sayTime(one.at)
              }}<template v-if="!one.sentAt"
                >, {{ one.tries > 0 ? `not sent, tried ${one.tries} times` : 'waits' }}</template
              ></span
            >
          </button>
        </li>
      </ul>
    </section>
    <article v-if="mail" class="grid content-start gap-2 rounded border border-rule bg-sheet p-5" data-mail>
      <h2 class="text-xl font-bold">{{ mail.subject }}</h2>
      <p class="text-[15px] text-faded">
        To {{ mail.to }}; {{ mail.sentAt ? `left ${sayDay(mail.sentAt)} at ${sayTime(mail.sentAt)}` : 'not sent yet' }}
      </p>
      <p class="mt-2 max-w-prose break-words whitespace-pre-line">{{ mail.words }}</p>
    </article>
    <div v-else />
    <section aria-labelledby="how" class="grid content-start gap-3">
      <h2 id="how" class="border-b-2 border-ink pb-1 text-lg font-bold">How mail leaves</h2>
      <p v-if="box" class="text-[15px]">
        {{
          box.real
            ? 'Through the mail server this studio has set up.'
            : 'No mail server is set up: messages lie in the folder “mail” of the data and are read here. Nothing leaves the house.'
        }}
      </p>
      <MailAddress v-if="box" :key="box.address.confirmed ?? ''" :address="box.address" @confirmed="box = $event" />
      <div class="grid grid-cols-2 gap-3">
        <ListField v-model="from" label="Quiet from" name="quietFrom" :options="HOURS" />
        <ListField v-model="to" label="until" name="quietTo" :options="HOURS" />
      </div>
      <p class="text-sm text-faded">No mail leaves in these hours; it waits. The same hour twice: at any time.</p>
      <button type="button" class="press justify-self-start" :disabled="busy" @click="look">
        Look now what is due
      </button>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </section>
  </div>
</template>
