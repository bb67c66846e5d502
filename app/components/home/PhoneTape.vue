<script setup lang="ts">
import { GIRTHS } from '#core/sites'
import { lengthToCm } from '#core/units'
import { asksAnother, HOME_PLACES } from '#core/home'
import { typedNumber, type HandIn } from '~/composables/useHandIn'

/** The tape, one place a screen: twice, a third time where the two lie apart. */
const props = defineProps<{ hand: HandIn }>()
const emit = defineEmits<{ done: []; back: [] }>()

const draft = computed(() => props.hand.draft.value)
const at = ref(
  Math.max(
    0,
    props.hand.sites.value.findIndex((site) => !props.hand.isDone(site)),
  ),
)
const site = computed(() => props.hand.sites.value[at.value] ?? 'abdomen')
const place = computed(
  () => HOME_PLACES[site.value] ?? { name: GIRTHS[site.value].name, how: GIRTHS[site.value].where },
)
const fields = useTemplateRef<HTMLInputElement[]>('fields')
const refused = ref<string | null>(null)

const typed = computed(() => draft.value?.girths[site.value] ?? [])
const third = computed(
  () =>
    typed.value.length > 2 ||
    (props.hand.readings(site.value).length === 2 && asksAnother(props.hand.readings(site.value))),
)
const turns = computed(() => (third.value ? [0, 1, 2] : [0, 1]))

function type(turn: number, text: string) {
  if (!draft.value) return
  refused.value = null
  const own = [...typed.value]
  while (own.length <= turn) own.push('')
  own[turn] = text
  draft.value.girths[site.value] = own
  void props.hand.keepDraft()
}

async function next() {
  if (!draft.value) return
  const { low, high } = GIRTHS[site.value].rangeCm
  for (const turn of turns.value) {
    const text = typed.value[turn] ?? ''
    const value = typedNumber(text)
    if (value === null) {
      refused.value = text.trim()
        ? 'Type the number the tape shows, such as 84.5.'
        : turn === 2
          ? 'The two lie more than 1 cm apart: once more, please.'
          : turn === 1
            ? 'Once more: take the tape off and lay it on again.'
            : null
      if (turn === 0 && !text.trim()) return go(1)
      return fields.value?.[turn]?.focus()
    }
    const cm = lengthToCm(value, draft.value.unit)
    if (cm < low || cm > high) {
      refused.value = 'That cannot be. Is the point in the right place?'
      return fields.value?.[turn]?.focus()
    }
  }
  if (asksAnother(props.hand.readings(site.value))) {
    await nextTick()
    refused.value = 'The two lie more than 1 cm apart: once more, please.'
    return fields.value?.[2]?.focus()
  }
  go(1)
}
function go(by: number) {
  refused.value = null
  const to = at.value + by
  if (to < 0) emit('back')
  else if (to >= props.hand.sites.value.length) emit('done')
  else at.value = to
}
</script>

<template>
  <form v-if="draft" class="flex flex-1 flex-col gap-3" novalidate data-tape @submit.prevent="next">
    <div>
      <p class="text-lg text-faded">The tape, {{ at + 1 }} of {{ hand.sites.value.length }}</p>
      <h1 class="text-3xl font-bold">{{ place.name }}</h1>
      <p class="text-lg">{{ place.how }}</p>
    </div>
    <TapeDrawing :site="site" class="mx-auto max-h-[34dvh] w-full" />
    <p class="text-[17px] text-faded">Sideways before a mirror: level all round, not pulled tight.</p>
    <div class="mt-auto grid gap-3">
      <div class="grid gap-2" :class="third ? 'grid-cols-3' : 'grid-cols-2'">
        <label v-for="turn in turns" :key="turn" class="grid gap-1 text-[17px] font-semibold">
          {{ ['First', 'Again', 'Once more'][turn] }}
          <input
            ref="fields"
            :value="typed[turn] ?? ''"
            :name="`${site}-${turn + 1}`"
            inputmode="decimal"
            autocomplete="off"
            enterkeyhint="next"
            class="field figure min-h-16 min-w-0 px-2 text-center text-3xl"
            @input="type(turn, ($event.target as HTMLInputElement).value)"
          />
        </label>
      </div>
      <p v-if="refused" role="alert" class="text-lg font-semibold text-alert">{{ refused }}</p>
      <button class="press press-first min-h-16 text-xl">
        {{ typed.some((text) => text.trim()) ? 'Next' : 'Leave this one out' }}
      </button>
      <button type="button" class="min-h-12 text-lg underline underline-offset-4" @click="go(-1)">Back</button>
    </div>
  </form>
</template>
