<script setup lang="ts">
import type { ChoiceInput } from '#shared/schemas/following'
import type { FollowedEnd } from '#shared/following'
import { clients } from '~/calls'
import { useMe } from '~/stores/me'

/** After the first visit there is no change yet: its result, and what to do next. */
const props = defineProps<{ clientId: string; now: FollowedEnd; next: string }>()

const store = useMe()
const { followed, planned } = useFollowed()
const { record, history, neutral, assessor } = followed
const { problem, busy, tell } = useTelling()
function choose(choice: ChoiceInput) {
  return tell(async () => followed.take({ choices: await clients.choose(props.clientId, choice) }))
}
</script>

<template>
  <div>
    <div class="border-b border-rule px-4 py-3 sm:px-6" data-first-visit>
      <p class="text-2xl leading-8 max-sm:text-xl">
        <strong>The first check-in is on record.</strong> Measure again about {{ sayDay(next) }}: the second one shows a
        change.
      </p>
      <PlanSaid
        v-if="planned.line.value && !planned.hidden.value"
        class="mt-1"
        :line="planned.line.value"
        :latest="null"
        :units="store.units"
      />
      <ul class="mt-2 flex flex-wrap gap-x-6 text-[15px]">
        <li>
          <NuxtLink to="/studio/data" class="inline-flex min-h-11 items-center underline underline-offset-4"
            >Bring in older sheets</NuxtLink
          >
        </li>
        <li>
          <NuxtLink
            :to="`/clients/${clientId}/photographs`"
            class="inline-flex min-h-11 items-center underline underline-offset-4"
            >Take a photo</NuxtLink
          >
        </li>
        <li>
          <NuxtLink
            :to="`/clients/${clientId}/plan`"
            class="inline-flex min-h-11 items-center underline underline-offset-4"
            >Agree on a plan</NuxtLink
          >
        </li>
      </ul>
    </div>
    <CheckinResult
      v-if="record && history"
      :end="now"
      :choices="record.choices"
      :recorded="history.choices[0] ?? null"
      :assessor="assessor"
      :units="store.units"
      :neutral="neutral"
      :busy="busy"
      :problem="problem"
      @choose="choose"
    />
  </div>
</template>
