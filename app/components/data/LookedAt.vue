<script setup lang="ts">
import type { LookedAt } from '#shared/schemas/data'
import { columnLetters } from '../../../exchange/table/cells'

/** What a file would bring in: who, how much, and everything that is wrong, at its cell. */
const props = defineProps<{ looked: LookedAt; sideways: boolean }>()
const count = (n: number, one: string, many = `${one}s`) => `${n.toLocaleString('en')} ${n === 1 ? one : many}`
const brings = computed(() => {
  const { checkins, readings, weighIns } = props.looked
  return [
    ...(checkins > 0 ? [`${count(checkins, 'check-in')} with ${count(readings, 'reading')}`] : []),
    ...(weighIns > 0 ? [count(weighIns, 'weight of the diary', 'weights of the diary')] : []),
  ]
})
/** A cell as the spreadsheet names it; a file turned on its side has its lines across. */
function place(line: number, column: number | null): string {
  if (props.sideways)
    return column === null ? `column ${columnLetters(line - 1)}` : `${columnLetters(line - 1)}${column + 1}`
  return column === null ? `line ${line}` : `${columnLetters(column)}${line}`
}
</script>

<template>
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-2" data-looked>
    <section class="grid content-start gap-2" aria-labelledby="brings">
      <h3 id="brings" class="border-b border-ink pb-1 font-bold">What it brings</h3>
      <p v-if="brings.length > 0">
        <strong>{{ brings.join(' and ') }}</strong>, of
        {{ count(looked.newClients + looked.matchedClients, 'client') }}.
      </p>
      <p v-else-if="looked.problemCount === 0">Nothing that is not here already.</p>
      <p v-if="looked.here > 0" class="text-[15px] text-faded">
        {{ count(looked.here, 'is', 'are') }} here already and left as {{ looked.here === 1 ? 'it is' : 'they are' }}.
      </p>
      <ul
        v-if="looked.clients.length > 0"
        class="max-h-56 overflow-y-auto text-[15px]"
        tabindex="0"
        aria-label="Clients"
      >
        <li
          v-for="one in looked.clients"
          :key="one.line + one.name"
          class="flex gap-3 border-b border-rule py-1"
          :data-who="one.isNew ? 'new' : 'matched'"
        >
          <span class="min-w-0 flex-1 truncate">{{ one.name }}</span>
          <span class="text-faded">born {{ sayDay(one.birthDate) }}</span>
          <span class="w-14 text-right" :class="one.isNew ? 'font-semibold text-signal' : 'text-faded'">{{
            one.isNew ? 'new' : 'here'
          }}</span>
        </li>
      </ul>
    </section>
    <section v-if="looked.problemCount > 0" class="grid content-start gap-2" aria-labelledby="wrong">
      <h3 id="wrong" class="border-b border-alert pb-1 font-bold text-alert">
        {{ count(looked.problemCount, 'thing') }} to put right
      </h3>
      <ul class="max-h-72 overflow-y-auto text-[15px]" tabindex="0" aria-label="Problems">
        <li
          v-for="(one, i) in looked.problems"
          :key="i"
          class="grid grid-cols-[5rem_minmax(0,1fr)] gap-2 border-b border-rule py-1"
          data-problem
        >
          <span class="figure font-semibold">{{ place(one.line, one.column) }}</span>
          <span>{{ one.message }}</span>
        </li>
      </ul>
      <p v-if="looked.problemCount > looked.problems.length" class="text-[15px] text-faded">
        and {{ (looked.problemCount - looked.problems.length).toLocaleString('en') }} more.
      </p>
      <p class="text-[15px] text-faded">
        Put them right in the file and drop it again, or leave a column out. Nothing is stored before all is clean.
      </p>
    </section>
  </div>
</template>
