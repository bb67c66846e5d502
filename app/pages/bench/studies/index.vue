<script setup lang="ts">
import type { StudyLine } from '#shared/schemas/study'
import { studies } from '~/bench-calls'

useHead({ title: 'Studies, Oak Pinch' })

const router = useRouter()
const list = ref<StudyLine[] | null>(null)
const making = ref(false)
useOpening(async () => {
  list.value = await studies.list()
})
const KIND_WORDS = {
  repeat: 'one assessor, twice',
  assessors: 'assessors side by side',
  calipers: 'calipers side by side',
}
const stateOf = ({ closedOn, leftOut, turnsDone, turnsWanted }: StudyLine) => {
  if (closedOn) return `closed ${sayDay(closedOn)}${leftOut ? ', left out' : ', in the error model'}`
  return turnsWanted === 0 ? 'nobody in it yet' : `${turnsDone} of ${turnsWanted} turns measured`
}
</script>

<template>
  <section v-if="list" class="w-full px-4 py-4 sm:px-6" aria-label="Studies">
    <template v-if="making">
      <h2 class="mb-3 text-xl font-bold">A new study</h2>
      <StudyForm @made="router.push(`/bench/studies/${$event}`)" @leave="making = false" />
    </template>
    <template v-else>
      <div class="mb-2 flex flex-wrap items-center gap-4">
        <p class="max-w-prose text-faded">
          Real people measured again: by the same hand, by another, with another caliper. What a closed study finds
          counts in every verdict from then on.
        </p>
        <button type="button" class="press press-first ml-auto" @click="making = true">Set a study up</button>
      </div>
      <ul class="grid gap-x-10 lg:grid-cols-2">
        <li v-for="one in list" :key="one.id" class="border-b border-rule">
          <NuxtLink :to="`/bench/studies/${one.id}`" class="grid gap-x-4 py-3 sm:grid-cols-[1fr_auto] sm:items-center">
            <span class="min-w-0">
              <span class="block truncate text-lg font-semibold">{{ one.name }}</span>
              <span class="block text-[15px] text-faded"
                >{{ KIND_WORDS[one.kind] }}: {{ one.pens.join(', ') }}; {{ one.people }} people</span
              >
            </span>
            <span class="text-[15px]">{{ stateOf(one) }}</span>
          </NuxtLink>
        </li>
      </ul>
      <p v-if="list.length === 0" class="text-lg">None yet.</p>
      <MethodAgreements />
    </template>
  </section>
</template>
