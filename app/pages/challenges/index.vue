<script setup lang="ts">
import type { ChallengeRecord } from '#shared/schemas/challenge'
import { challenges as calls } from '~/week-calls'

useHead({ title: 'Challenges, Oak Pinch' })

const router = useRouter()
const list = ref<ChallengeRecord[] | null>(null)
const making = ref(false)
useOpening(async () => {
  list.value = await calls.list()
})
const state = ({ startsOn, endsOn, closedAt }: ChallengeRecord) => {
  const today = todayHere()
  if (closedAt) return `closed ${sayDay(closedAt)}`
  if (startsOn > today) return `begins ${sayDay(startsOn)}`
  return endsOn >= today ? `runs until ${sayDay(endsOn)}` : 'over, to be closed'
}
</script>

<template>
  <div v-if="list" class="w-full px-4 py-4 sm:px-6">
    <div class="mb-3 flex flex-wrap items-center gap-4">
      <h1 class="text-3xl font-bold">Challenges</h1>
      <button v-if="!making" type="button" class="press press-first ml-auto" @click="making = true">Set one up</button>
    </div>
    <ChallengeForm v-if="making" @made="(_, id) => router.push(`/challenges/${id}`)" @leave="making = false" />
    <template v-else>
      <p v-if="list.length === 0" class="max-w-prose text-lg text-faded">
        None yet. A challenge counts the change of everybody’s own folds over some weeks; places are shared where the
        error of measuring does not part people.
      </p>
      <ul class="grid gap-x-10 lg:grid-cols-2">
        <li v-for="one in list" :key="one.id" class="border-b border-rule">
          <NuxtLink :to="`/challenges/${one.id}`" class="flex items-baseline gap-4 py-3">
            <span class="min-w-0 flex-1">
              <span class="block truncate text-lg font-semibold">{{ one.name }}</span>
              <span class="block text-[15px] text-faded"
                >{{ sayDay(one.startsOn) }} to {{ sayDay(one.endsOn) }}, {{ state(one) }}</span
              >
            </span>
            <span class="figure whitespace-nowrap"
              >{{ one.entries }} <span class="font-sans text-faded">take part</span></span
            >
          </NuxtLink>
        </li>
      </ul>
    </template>
  </div>
</template>
