<script setup lang="ts">
import { asSite, CONFUSABLE, FOLDS, GIRTHS, SCHOOLS, SITES, type Site, type SiteId } from '#core/sites'
import { PROTOCOLS } from '#core/protocols'

useHead({ title: 'Sites, Oak Pinch' })

const route = useRoute()
const router = useRouter()
const chosen = computed<SiteId>(() => asSite(String(route.query.site ?? '')) ?? 'triceps')
const site = computed<Site>(() => SITES[chosen.value])
const groups = [
  { name: 'Skinfolds', sites: Object.values(FOLDS) as Site[] },
  { name: 'Girths', sites: Object.values(GIRTHS) as Site[] },
]
const marks = computed(() =>
  Object.values(SITES)
    .filter(({ kind }) => kind === site.value.kind)
    .map((one) => ({ site: one, state: one.id === chosen.value ? ('now' as const) : ('to-come' as const) })),
)
const near = computed(() =>
  CONFUSABLE.filter(({ sites }) => sites.includes(chosen.value)).map(({ sites, difference }) => ({
    other: SITES[sites[0] === chosen.value ? sites[1] : sites[0]],
    both: `${SITES[sites[0]].name} and ${SITES[sites[1]].name.toLowerCase()}`,
    difference,
  })),
)
const usedBy = computed(() => Object.values(PROTOCOLS).filter(({ sites }) => sites.includes(chosen.value)))

function choose(id: string) {
  void router.replace({ query: { site: id } })
}
</script>

<template>
  <div class="grid flex-1 lg:grid-cols-[290px_220px_1fr]">
    <aside
      class="flex gap-2 border-rule px-4 py-3 max-sm:h-72 lg:sticky lg:top-0 lg:h-[calc(100dvh-110px)] lg:border-r"
    >
      <figure v-for="view in ['front', 'back'] as const" :key="view" class="flex min-h-0 flex-1 flex-col">
        <figcaption class="text-sm text-faded">{{ view === 'front' ? 'Front' : 'Back' }}</figcaption>
        <BodyFigure :view="view" :marks="marks" pickable class="min-h-0 w-full flex-1" @pick="choose" />
      </figure>
    </aside>
    <nav aria-label="Sites" class="border-rule bg-sheet px-3 py-3 max-lg:order-last max-lg:border-y lg:border-r">
      <div class="grid grid-cols-2 gap-x-3 lg:grid-cols-1">
        <div v-for="group in groups" :key="group.name" class="mb-2">
          <h2 class="px-2 text-sm font-semibold text-faded">{{ group.name }}</h2>
          <ul>
            <li v-for="one in group.sites" :key="one.id">
              <button
                class="w-full rounded px-2 py-px text-left text-[15px] max-lg:min-h-9"
                :class="one.id === chosen ? 'bg-wash font-bold shadow-[inset_3px_0_0_var(--signal)]' : 'hover:bg-wash'"
                :aria-current="one.id === chosen ? 'true' : undefined"
                @click="choose(one.id)"
              >
                {{ one.name }}
              </button>
            </li>
          </ul>
        </div>
      </div>
    </nav>
    <section aria-live="polite" class="px-4 py-4 sm:px-8">
      <SiteCloseUp
        :site="chosen"
        class="mb-3 h-[420px] w-full max-sm:h-[300px] sm:float-right sm:ml-6 sm:w-[54%]"
        data-near
      />
      <div class="flex flex-wrap items-baseline gap-x-3">
        <h2 class="text-3xl font-bold">{{ site.name }}</h2>
        <span class="text-faded">{{
          site.schools.map((school) => SCHOOLS[school].name.toLowerCase()).join(', ')
        }}</span>
      </div>
      <p class="mt-2 max-w-prose text-lg">{{ site.where }}</p>
      <ol class="mt-3 max-w-prose list-decimal space-y-1 pl-5">
        <li v-for="step in site.steps" :key="step">{{ step }}</li>
      </ol>
      <p v-if="site.hint" class="mt-3 max-w-prose border-l-4 border-rule pl-3">{{ site.hint }}</p>
      <template v-if="near.length > 0">
        <h3 class="clear-both mt-5 mb-2 border-b border-ink pb-1 font-semibold">Not to be confused with</h3>
        <div v-for="{ other, both, difference } in near" :key="other.id" class="mb-3 grid gap-x-6 sm:grid-cols-2">
          <p class="font-semibold sm:col-span-2">{{ both }}: {{ difference }}</p>
          <p class="text-[15px] text-faded">{{ site.where }}</p>
          <p class="text-[15px] text-faded">
            {{ other.where }}
            <button class="underline underline-offset-4" @click="choose(other.id)">
              Show {{ other.name.toLowerCase() }}
            </button>
          </p>
        </div>
      </template>
      <h3 class="clear-both mt-5 mb-2 border-b border-ink pb-1 font-semibold">Measured in</h3>
      <ul class="columns-1 text-[15px] sm:columns-2">
        <li v-for="protocol in usedBy" :key="protocol.id">{{ protocol.name }}</li>
        <li v-if="usedBy.length === 0" class="text-faded">No set of the schools; a studio can add it to its own.</li>
      </ul>
      <h3 class="mt-5 mb-2 border-b border-ink pb-1 font-semibold">The schools side by side</h3>
      <ScrollTable label="The schools side by side">
        <table class="ruled text-[15px]">
          <thead>
            <tr>
              <th scope="col">School</th>
              <th scope="col">Readings</th>
              <th scope="col">Read at</th>
              <th scope="col">Follows</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="school in SCHOOLS" :key="school.id">
              <td class="font-semibold whitespace-nowrap">{{ school.name }}</td>
              <td>{{ school.readings }}</td>
              <td>{{ school.timing }}</td>
              <td>{{ school.follows }}</td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
    </section>
  </div>
</template>
