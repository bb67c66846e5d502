<script setup lang="ts">
/** Lines of something pasted, each as it will be stored or with what is wrong with it, to be left out or put back. */
defineProps<{
  /** What the third column holds. */
  column: string
  lines: readonly {
    number: number
    text: string
    day: string | null
    said: string
    problem: string | null
    note: string | null
  }[]
}>()
const leftOut = defineModel<ReadonlySet<number>>('leftOut', { required: true })

function toggle(number: number) {
  const next = new Set(leftOut.value)
  if (!next.delete(number)) next.add(number)
  leftOut.value = next
}
</script>

<template>
  <div class="max-h-72 overflow-y-auto" tabindex="0" role="region" aria-label="Lines read">
    <table class="ruled">
      <thead>
        <tr>
          <th scope="col">Line</th>
          <th scope="col">Day</th>
          <th scope="col" class="right">{{ column }}</th>
          <th scope="col"><span class="sr-only">What is wrong</span></th>
          <th scope="col"><span class="sr-only">Leave out</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in lines"
          :key="line.number"
          :data-line="line.number"
          :class="{ 'text-faded line-through': leftOut.has(line.number) }"
        >
          <td class="figure !py-1 text-faded">{{ line.number }}</td>
          <td class="!py-1 whitespace-nowrap">{{ line.day ? sayDay(line.day) : line.text.slice(0, 24) }}</td>
          <td class="figure right !py-1 whitespace-nowrap">{{ line.said }}</td>
          <td class="!py-1 pl-3 text-[15px]">
            <span v-if="line.problem" class="font-semibold text-alert">{{ line.problem }}</span>
            <span v-else-if="line.note" class="text-faded">{{ line.note }}</span>
          </td>
          <td class="right !py-1">
            <button
              v-if="line.problem"
              type="button"
              class="min-h-9 text-[15px] underline underline-offset-4"
              @click="toggle(line.number)"
            >
              {{ leftOut.has(line.number) ? 'put back' : 'leave out' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
