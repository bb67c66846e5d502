<script setup lang="ts">
import GripVertical from '@lucide/vue/dist/esm/icons/grip-vertical.mjs'
import X from '@lucide/vue/dist/esm/icons/x.mjs'
import { VueDraggable } from 'vue-draggable-plus'
import { v7 as uuid } from 'uuid'
import { equationsFor } from '#core/equations'
import { POLICIES, type PolicyId } from '#core/readings'
import { isFold, SITES, type Site, type SiteId } from '#core/sites'
import type { StudioSet } from '#shared/schemas/set'
import { sets as calls } from '~/calls'
import { useMe } from '~/stores/me'

useHead({ title: 'Sets of sites, Oak Pinch' })

const store = useMe()
const offered = computed(() => store.me?.sets.filter((one) => one.offered) ?? [])
const versionsOf = (setId: string) => store.me?.sets.filter((one) => one.setId === setId) ?? []
const problems = useProblems(['name', 'sites'])
const kept = ref<string | null>(null)
const leaving = ref(false)

/** The set under hand: a new one, or the next version of one. */
const own = reactive({
  setId: uuid(),
  base: null as StudioSet | null,
  name: '',
  policy: 'laboratory' as PolicyId,
  girthPolicy: 'tape' as PolicyId,
})
const folds = ref<SiteId[]>([])
const girths = ref<SiteId[]>([])
const sites = computed(() => [...folds.value, ...girths.value])

const POLICIES_SHOWN = Object.values(POLICIES)
const foldPolicies = POLICIES_SHOWN.filter(({ id }) => !/girth|tape|height/.test(id)).map(({ id, name }) => ({
  id: id as PolicyId,
  name,
}))
const girthPolicies = POLICIES_SHOWN.filter(({ id }) => /girth|tape/.test(id)).map(({ id, name }) => ({
  id: id as PolicyId,
  name,
}))
const kind = ref<'fold' | 'girth'>('fold')
const marks = computed(() =>
  (Object.values(SITES) as Site[])
    .filter((site) => !(site.kind === 'girth' && site.former))
    .filter((site) => (kind.value === 'fold') === isFold(site.id as SiteId))
    .map((site) => ({
      site,
      state: sites.value.includes(site.id as SiteId) ? ('marked' as const) : ('to-come' as const),
    })),
)
const unused = computed(() => marks.value.filter(({ state }) => state === 'to-come').map(({ site }) => site))
const feeds = computed(() =>
  (['female', 'male'] as const).map((sex) => ({
    sex,
    equations: equationsFor(sex, sites.value).map(({ label }) => label),
  })),
)
const changed = computed(
  () =>
    own.base === null ||
    own.name.trim() !== own.base.name ||
    own.policy !== own.base.policy ||
    own.girthPolicy !== own.base.girthPolicy ||
    sites.value.join() !== own.base.sites.join(),
)

function lay(set: StudioSet | null) {
  own.base = set
  own.setId = set?.setId ?? uuid()
  own.name = set?.name ?? ''
  own.policy = set?.policy ?? 'laboratory'
  own.girthPolicy = set?.girthPolicy ?? 'tape'
  folds.value = set?.sites.filter((site) => isFold(site)) ?? []
  girths.value = set?.sites.filter((site) => !isFold(site)) ?? []
  kept.value = null
  leaving.value = false
}
onMounted(() => lay(offered.value[0] ?? null))

const listOf = (site: SiteId) => (isFold(site) ? folds : girths)
function toggle(id: string) {
  const site = id as SiteId
  const list = listOf(site)
  list.value = list.value.includes(site) ? list.value.filter((one) => one !== site) : [...list.value, site]
}
function move(site: SiteId, by: number) {
  const list = listOf(site)
  const from = list.value.indexOf(site)
  const to = from + by
  if (to < 0 || to >= list.value.length) return
  const moved = [...list.value]
  moved.splice(from, 1)
  moved.splice(to, 0, site)
  list.value = moved
  void nextTick(() => document.querySelector<HTMLElement>(`[data-site="${site}"] button`)?.focus())
}

async function keep() {
  kept.value = null
  const set = {
    id: uuid(),
    setId: own.setId,
    name: own.name,
    sites: sites.value,
    policy: own.policy,
    girthPolicy: own.girthPolicy,
  }
  await problems.send(async () => {
    store.takeSets(await calls.keep(set))
    const now = store.me?.sets.find(({ id }) => id === set.id) ?? null
    lay(now)
    kept.value =
      now && now.version > 1
        ? `Kept as version ${now.version}. What was measured before stays as it was.`
        : 'Kept. It is offered like any other set.'
  })
}
async function retire() {
  if (!leaving.value) return void (leaving.value = true)
  await problems.send(async () => {
    store.takeSets(await calls.retire(own.setId))
    lay(offered.value[0] ?? null)
  })
}
</script>

<template>
  <div class="grid flex-1 gap-x-8 gap-y-6 px-4 py-4 sm:px-6 lg:grid-cols-[220px_minmax(280px,380px)_minmax(0,1fr)]">
    <nav class="grid content-start gap-1" aria-label="This studio’s sets">
      <h2 class="border-b-2 border-ink pb-1 text-lg font-bold">Own sets</h2>
      <p v-if="offered.length === 0" class="py-1 text-[15px] text-faded">
        None yet. A set of your own is used like any other: choose its sites on the figure.
      </p>
      <button
        v-for="one in offered"
        :key="one.id"
        type="button"
        class="rounded px-2 py-1.5 text-left"
        :class="one.setId === own.setId ? 'bg-wash font-bold shadow-[inset_3px_0_0_var(--signal)]' : 'hover:bg-wash'"
        :aria-current="one.setId === own.setId ? 'true' : undefined"
        @click="lay(one)"
      >
        {{ one.name }}
        <span class="block text-sm font-normal text-faded"
          >{{ one.sites.length }} sites<template v-if="versionsOf(one.setId).length > 1"
            >, version {{ one.version }}</template
          ></span
        >
      </button>
      <button v-if="store.isLead" type="button" class="press press-quiet mt-2 justify-self-start" @click="lay(null)">
        New set
      </button>
    </nav>
    <div class="grid content-start gap-2">
      <PressGroup
        v-model="kind"
        label="What is chosen"
        :options="[
          { id: 'fold', name: 'Folds' },
          { id: 'girth', name: 'Girths' },
        ]"
      />
      <div class="flex h-[min(58dvh,520px)] gap-2">
        <figure v-for="view in ['front', 'back'] as const" :key="view" class="flex min-h-0 flex-1 flex-col">
          <figcaption class="text-sm text-faded">{{ view === 'front' ? 'Front' : 'Back' }}</figcaption>
          <BodyFigure :view="view" :marks="marks" pickable class="min-h-0 w-full flex-1" @pick="toggle" />
        </figure>
      </div>
      <div class="flex flex-wrap gap-1" aria-label="Sites not in the set">
        <button
          v-for="site in unused"
          :key="site.id"
          type="button"
          class="press press-quiet min-h-9 px-2 text-[15px]"
          :aria-label="`Add ${site.name}`"
          :data-add="site.id"
          @click="toggle(site.id)"
        >
          {{ site.name }}
        </button>
      </div>
    </div>
    <form class="grid content-start gap-4" novalidate data-set @submit.prevent="keep">
      <TextField
        v-model="own.name"
        label="Name"
        name="name"
        maxlength="60"
        autocomplete="off"
        :problem="problems.byField.value.get('name')"
      />
      <div class="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <div
          v-for="group in [
            { name: 'Folds, in order', list: folds, id: 'folds' },
            { name: 'Girths, in order', list: girths, id: 'girths' },
          ]"
          :key="group.id"
          class="grid content-start gap-1"
        >
          <h2 class="font-semibold">{{ group.name }}</h2>
          <p v-if="group.list.length === 0" class="text-[15px] text-faded">None.</p>
          <VueDraggable
            :model-value="group.list"
            :animation="120"
            handle=".grip"
            tag="ol"
            @update:model-value="group.id === 'folds' ? (folds = $event as SiteId[]) : (girths = $event as SiteId[])"
          >
            <li
              v-for="(site, i) in group.list"
              :key="site"
              class="flex items-center gap-1 border-b border-rule bg-paper"
              :data-site="site"
            >
              <button
                type="button"
                class="grip grid size-10 cursor-grab place-items-center"
                :aria-label="`${SITES[site].name}, ${i + 1} of ${group.list.length}. Arrows move it.`"
                @keydown.up.prevent="move(site, -1)"
                @keydown.down.prevent="move(site, 1)"
              >
                <GripVertical class="size-4" aria-hidden="true" />
              </button>
              <span class="figure w-6 text-sm text-faded">{{ i + 1 }}</span>
              <span class="min-w-0 flex-1 truncate">{{ SITES[site].name }}</span>
              <button
                type="button"
                class="grid size-10 place-items-center"
                :aria-label="`Take ${SITES[site].name} out`"
                @click="toggle(site)"
              >
                <X class="size-4" aria-hidden="true" />
              </button>
            </li>
          </VueDraggable>
        </div>
      </div>
      <p v-if="problems.byField.value.get('sites')" role="alert" class="font-semibold text-alert">
        {{ problems.byField.value.get('sites') }}
      </p>
      <div class="grid gap-3 sm:grid-cols-2">
        <ListField v-model="own.policy" label="Folds are read" name="policy" :options="foldPolicies" />
        <ListField v-model="own.girthPolicy" label="Girths are read" name="girthPolicy" :options="girthPolicies" />
      </div>
      <div class="grid gap-1 text-[15px]" data-feeds>
        <h2 class="font-semibold">What it feeds</h2>
        <p v-for="one in feeds" :key="one.sex">
          <span class="text-faded">{{ one.sex === 'female' ? 'Women' : 'Men' }}:</span>
          {{ one.equations.length > 0 ? one.equations.join(', ') : 'the sum and the sites; no equation for percent' }}
        </p>
      </div>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <p v-if="kept" role="status" class="font-semibold text-lean">{{ kept }}</p>
      <div v-if="store.isLead" class="flex flex-wrap gap-2">
        <button class="press press-first" :disabled="!changed">
          {{ own.base ? `Keep as version ${versionsOf(own.setId).length + 1}` : 'Keep this set' }}
        </button>
        <button
          v-if="own.base"
          type="button"
          class="press press-quiet"
          :class="{ 'text-alert': leaving }"
          @click="retire"
        >
          {{ leaving ? 'Yes, offer it no longer' : 'Offer it no longer' }}
        </button>
      </div>
      <p v-else class="text-[15px] text-faded">A lead coach makes and changes sets.</p>
    </form>
  </div>
</template>
