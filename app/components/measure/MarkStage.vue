<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { SITES, type SiteId } from '#core/sites'

const props = defineProps<{
  sites: readonly SiteId[]
  landmarks: Record<string, string>
  side: 'right' | 'left'
  sex: 'female' | 'male'
  /** Starting with the readings has become this coach's habit. */
  skipsMarking: boolean
  problem: string | null
}>()
const emit = defineEmits<{
  at: [site: SiteId]
  marked: [site: SiteId]
  landmark: [site: SiteId, note: string]
  done: []
  habit: [skip: boolean]
}>()

const index = ref(0)
const site = computed(() => SITES[props.sites[index.value] ?? 'triceps'])
const note = ref('')
const field = useTemplateRef<HTMLInputElement>('field')

watch(
  site,
  (now) => {
    note.value = props.landmarks[now.id] ?? ''
    emit('at', now.id as SiteId)
  },
  { immediate: true },
)

function keepNote() {
  const id = site.value.id as SiteId
  if (note.value.trim() !== (props.landmarks[id] ?? '')) emit('landmark', id, note.value.trim())
}

function go(by: 1 | -1) {
  keepNote()
  if (by === 1) emit('marked', site.value.id as SiteId)
  if (index.value + by >= props.sites.length) emit('done')
  else index.value = Math.max(0, index.value + by)
}

useEventListener('keydown', (event: KeyboardEvent) => {
  const typing = event.target === field.value
  if (event.key === 'Enter' && (typing || !(event.target instanceof HTMLButtonElement))) {
    event.preventDefault()
    field.value?.blur()
    go(1)
  } else if (event.key === 'Escape') {
    keepNote()
    emit('done')
  } else if (!typing && (event.key === 'ArrowRight' || event.key === 'ArrowDown')) go(1)
  else if (!typing && (event.key === 'ArrowLeft' || event.key === 'ArrowUp')) go(-1)
})
</script>

<template>
  <section class="mark" aria-label="Mark the sites">
    <div class="where min-w-0">
      <p class="text-faded">Mark every site first, on the {{ side }} side. {{ index + 1 }} of {{ sites.length }}</p>
      <h2 class="text-4xl font-bold max-sm:text-3xl">{{ site.name }}</h2>
      <p class="mt-2 max-w-prose text-xl leading-snug max-sm:text-lg">{{ site.where }}</p>
    </div>
    <SiteCloseUp class="near" :site="site.id as SiteId" :mirrored="side === 'left'" :sex="sex" />
    <div class="how grid min-w-0 content-start gap-3">
      <ol class="max-w-prose list-decimal space-y-1 pl-5 text-lg max-sm:text-base">
        <li v-for="step in site.steps" :key="step">{{ step }}</li>
      </ol>
      <p v-if="site.hint" class="max-w-prose border-l-4 border-rule pl-3">{{ site.hint }}</p>
      <label class="grid max-w-prose gap-1">
        <span class="font-semibold">This client’s own landmark</span>
        <input
          ref="field"
          v-model="note"
          name="landmark"
          class="field"
          maxlength="300"
          autocomplete="off"
          placeholder="a mole, a freckle, one finger above the crest"
          @blur="keepNote"
        />
      </label>
      <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    </div>
    <div class="acts flex flex-wrap items-center gap-3 max-sm:sticky max-sm:bottom-0 max-sm:bg-paper max-sm:py-3">
      <button class="press press-first min-h-14 px-8 text-lg" @click="go(1)">
        {{ index + 1 < sites.length ? 'Marked, next' : 'Marked, measure' }}
      </button>
      <button v-if="index > 0" class="press press-quiet min-h-14" @click="go(-1)">Back</button>
      <button class="press press-quiet min-h-14" @click="emit('done')">Skip marking</button>
      <label class="ml-auto flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          name="skipsMarking"
          class="size-5 accent-ink"
          :checked="skipsMarking"
          @change="emit('habit', ($event.target as HTMLInputElement).checked)"
        />
        always start with the readings
      </label>
    </div>
  </section>
</template>

<style scoped>
/* What to do on the left, the place from near on the right, the way on at the bottom. */
.mark {
  display: grid;
  grid-template:
    'where near' auto
    'how near' minmax(0, 1fr)
    'acts acts' auto / minmax(0, 1fr) minmax(0, 42%);
  gap: 16px 28px;
  padding: 20px 32px;
}
.where {
  grid-area: where;
}
.near {
  grid-area: near;
  width: 100%;
  height: 100%;
  min-height: 0;
  max-height: calc(100dvh - 180px);
}
.how {
  grid-area: how;
}
.acts {
  grid-area: acts;
}
@media (max-width: 999px) and (min-height: 500px) {
  .mark {
    grid-template: 'where' auto 'near' minmax(200px, 1fr) 'how' auto 'acts' auto / minmax(0, 1fr);
    gap: 10px;
    padding: 16px 20px;
  }
  .near {
    max-height: 46dvh;
  }
}
@media (max-width: 639px) and (min-height: 500px) {
  .mark {
    padding: 12px 16px 0;
  }
  .near {
    max-height: 34dvh;
  }
}
</style>
