<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { changeRow } from '#core/following'
import { GIRTHS } from '#core/sites'
import { answerOf } from '#core/composition'
import { HAND_IN_CONDITIONS, HOME_PLACES } from '#core/home'
import { formatChange, formatGirth, formatMass, formatMassChange, cmToLength, type Units } from '#core/units'
import { POSES } from '#shared/schemas/photo'
import type { FromHome, LineRecord } from '#shared/schemas/link'
import { fromHome as calls } from '~/week-calls'

/** A week handed in: weight, tape, pictures beside the last ones, what was said, and the answer. */
const props = defineProps<{
  clientId: string
  week: FromHome['weeks'][number]
  /** The week before that holds pictures. */
  before: FromHome['weeks'][number] | null
  lines: readonly LineRecord[]
  units: Units
  neutral: boolean
}>()
const emit = defineEmits<{ lines: [lines: LineRecord[]]; removed: [] }>()

const answer = ref('')
const { problem, busy, tell } = useTelling()
const said = computed(() => [
  ...HAND_IN_CONDITIONS.flatMap((one) => {
    const name = answerOf(one, props.week.conditions[one.id] ?? '')?.name
    return name ? [`${one.label.toLowerCase()} ${name}`] : []
  }),
  ...(props.week.fit ? [`clothes ${props.week.fit === 'same' ? 'fit the same' : props.week.fit}`] : []),
])
const poses = computed(() =>
  POSES.flatMap((pose) => {
    const now = props.week.photos.find((one) => one.pose === pose)
    return now ? [{ pose, now, then: props.before?.photos.find((one) => one.pose === pose) ?? null }] : []
  }),
)
/** Each place of the tape by its row, and what it did since last week as shown. */
const tape = computed(() =>
  props.week.changes.map((one) => ({ ...one, row: one.change && changeRow(one.change, props.units) })),
)
const change = (cm: number) => formatChange(cmToLength(cm, props.units.length))

function send() {
  return tell(async () => {
    const line = { id: uuid(), handInId: props.week.id, words: answer.value }
    emit('lines', await calls.write(props.clientId, line))
    answer.value = ''
  })
}
function remove(id: string) {
  return tell(async () => {
    await calls.removePhoto(id)
    emit('removed')
  })
}
</script>

<template>
  <article class="grid content-start gap-4" :aria-label="`Week of ${sayDay(week.day)}`" data-week>
    <div class="flex flex-wrap items-end gap-x-8 gap-y-2">
      <div v-if="week.weight && !neutral" data-week-mean>
        <p class="text-[15px] text-faded">Mean of seven days, {{ week.weight.count }} of 7 mornings</p>
        <p class="figure text-4xl text-weight">
          {{ formatMass(week.weight.weightKg, units) }} <span class="text-xl">{{ units.mass }}</span>
          <span v-if="week.weight.sinceLast !== null" class="ml-3 text-xl text-faded"
            >{{ formatMassChange(week.weight.sinceLast, units) }} against the week before</span
          >
        </p>
      </div>
      <p v-else-if="neutral" class="text-faded">Neutral: weight stands in the diary and not here.</p>
      <p v-else class="text-faded">Fewer than three mornings this week: no mean yet.</p>
      <p v-if="said.length > 0" class="text-[17px]">{{ said.join(', ') }}</p>
    </div>
    <p v-if="week.words" class="max-w-prose border-l-4 border-ink pl-3 text-lg" data-week-words>{{ week.words }}</p>

    <ScrollTable v-if="week.changes.length > 0" label="The tape of this week">
      <table class="ruled">
        <thead>
          <tr>
            <th>The tape</th>
            <th class="right">Now, {{ units.length }}</th>
            <th class="right">Since last week</th>
            <th class="right">Since the first</th>
            <th class="pl-6">Is it real?</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in tape" :key="one.site" :data-girth="one.site">
            <td>{{ HOME_PLACES[one.site]?.name ?? GIRTHS[one.site].name }}</td>
            <td class="right figure">{{ one.row?.now ?? formatGirth(one.cm, units) }}</td>
            <td class="right figure">{{ one.sinceLast === null ? '' : change(one.sinceLast) }}</td>
            <td class="right figure whitespace-nowrap">
              <template v-if="one.row"
                ><span class="text-sm text-faded">from {{ one.row.then }}</span> <strong>{{
                  one.row.difference
                }}</strong></template
              >
            </td>
            <td class="pl-6">
              <template v-if="one.change && one.row"
                ><VerdictMark :change="one.change" /><span class="block text-xs text-faded">{{
                  one.row.reason
                }}</span></template
              >
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>

    <div v-if="poses.length > 0" class="grid grid-cols-1 gap-4 sm:grid-cols-3">
      <figure v-for="one in poses" :key="one.pose" class="grid content-start gap-1">
        <div class="grid grid-cols-2 gap-1">
          <SignedPicture
            v-if="one.then"
            :path="`/api/home-photos/${one.then.id}`"
            :alt="`${one.pose}, ${sayDay(one.then.takenAt)}`"
            class="aspect-[2/3] w-full rounded border border-rule object-cover"
          />
          <div
            v-else
            class="grid aspect-[2/3] place-items-center rounded border border-dashed border-rule p-2 text-center text-sm text-faded"
          >
            none before
          </div>
          <SignedPicture
            :path="`/api/home-photos/${one.now.id}`"
            :alt="`${one.pose}, ${sayDay(one.now.takenAt)}`"
            class="aspect-[2/3] w-full rounded border border-rule object-cover"
          />
        </div>
        <figcaption class="flex items-baseline justify-between text-[15px]">
          <span
            >{{ one.pose
            }}<span class="text-faded"
              >, {{ one.then ? `${sayDay(one.then.takenAt)} and ` : '' }}{{ sayDay(one.now.takenAt) }}</span
            ></span
          >
          <button type="button" class="min-h-9 text-sm underline underline-offset-4" @click="remove(one.now.id)">
            Take it away
          </button>
        </figcaption>
      </figure>
    </div>

    <section class="grid max-w-prose gap-2" aria-label="Lines">
      <p v-for="line in lines" :key="line.id" class="border-l-4 border-lean pl-3" data-answer>
        {{ line.words }} <span class="text-sm text-faded">{{ line.by }}, {{ sayAgo(line.at) }}</span>
      </p>
      <form class="grid gap-2" novalidate @submit.prevent="send">
        <label class="grid gap-1 font-semibold"
          >{{ lines.length > 0 ? 'Another line' : 'Answer with a line' }}
          <textarea v-model="answer" name="answer" rows="2" maxlength="500" class="field font-normal" />
        </label>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <button class="press press-first justify-self-start" :disabled="busy || answer.trim() === ''">Send</button>
      </form>
    </section>
  </article>
</template>
