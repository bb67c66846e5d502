<script setup lang="ts">
import type { Mailbox } from '#shared/schemas/mail'
import { mails as calls } from '~/calls'

/** What links in mails begin with. Nobody but a lead says so: a request could claim anything. */
const props = defineProps<{ address: Mailbox['address'] }>()
const emit = defineEmits<{ confirmed: [box: Mailbox] }>()
const typed = ref(props.address.confirmed ?? location.origin)
const problems = useProblems(['address'])
const confirm = (address: string | null) =>
  problems.send(async () => emit('confirmed', await calls.confirmAddress(address)))
</script>

<template>
  <div class="grid gap-2" data-mail-address>
    <p v-if="address.configured" class="text-[15px]">
      Links in mails begin with <strong class="break-all">{{ address.configured }}</strong>, as this installation is set
      up.
    </p>
    <form v-else class="grid gap-2" novalidate @submit.prevent="confirm(typed)">
      <p class="text-[15px]">
        <template v-if="address.confirmed">
          Links in mails begin with <strong class="break-all">{{ address.confirmed }}</strong>.
        </template>
        <template v-else>
          Mails carry no links yet, and reminders wait: each needs a link that stops it. Confirm where clients reach
          this studio.
        </template>
      </p>
      <TextField
        v-model="typed"
        label="Address of this studio"
        name="address"
        type="url"
        autocomplete="off"
        :problem="problems.byField.value.get('address')"
      />
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex flex-wrap gap-2">
        <button class="press" :class="{ 'press-first': !address.confirmed }">
          {{ address.confirmed ? 'Change' : 'Confirm' }}
        </button>
        <button v-if="address.confirmed" type="button" class="press press-quiet" @click="confirm(null)">
          No links in mails
        </button>
      </div>
    </form>
  </div>
</template>
