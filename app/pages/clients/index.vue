<script setup lang="ts">
import ArrowDown from '@lucide/vue/dist/esm/icons/arrow-down.mjs'
import ArrowUp from '@lucide/vue/dist/esm/icons/arrow-up.mjs'
import Plus from '@lucide/vue/dist/esm/icons/plus.mjs'
import { createColumnHelper, FlexRender, getCoreRowModel, useVueTable, type SortingState } from '@tanstack/vue-table'
import type { ClientFigure, ClientFilter, ClientLine, ClientPage, ClientSort } from '#shared/schemas/client'
import FigureCell from '~/components/client/FigureCell.vue'
import MeasureCell from '~/components/client/MeasureCell.vue'
import NameCell from '~/components/client/NameCell.vue'
import { useMe } from '~/stores/me'

useHead({ title: 'Clients, Oak Pinch' })

const route = useRoute()
const router = useRouter()
const store = useMe()
const q = ref(String(route.query.q ?? ''))
const archived = ref(false)
const filter = ref<ClientFilter>('all')
const sorting = ref<SortingState>([{ id: 'name', desc: false }])
const lines = ref<ClientLine[]>([])
const total = ref(0)
const next = ref<number | null>(null)
const loaded = ref(false)
const problem = ref<string | null>(null)
const today = todayHere()
const { keptSince, ask } = useKeptAnswers()

const FILTERS: readonly { id: ClientFilter; name: string }[] = [
  { id: 'all', name: 'Everyone' },
  { id: 'due', name: 'Due' },
  { id: 'changed', name: 'Really changed' },
  { id: 'open', name: 'Under way' },
  { id: 'new', name: 'Not measured yet' },
]

let asked = 0
async function load(from = 0) {
  const mine = ++asked
  const [sort] = sorting.value
  try {
    const page = await ask<ClientPage>('/api/clients', {
      q: q.value,
      archived: archived.value,
      filter: filter.value,
      sort: (sort?.id ?? 'name') as ClientSort,
      descending: sort?.desc ?? false,
      from,
    })
    // An answer overtaken by a later question is dropped: what is shown fits what is typed.
    if (mine !== asked) return
    lines.value = from > 0 ? [...lines.value, ...page.clients] : page.clients
    total.value = page.total
    next.value = page.next
    loaded.value = true
    problem.value = null
  } catch (error) {
    problem.value = problemOf(error).message
  }
}

watch([q, archived, filter, sorting], () => load(), { immediate: true })
watch(
  () => route.query.q,
  (query) => (q.value = String(query ?? '')),
)

const cellOf = (figure: 'fat' | 'lean' | 'sum', of: ClientFigure | null) =>
  h(FigureCell, { figure, of, units: store.units })

const column = createColumnHelper<ClientLine>()
const columns = computed(() => [
  column.accessor('name', { header: 'Name', cell: ({ row }) => h(NameCell, { client: row.original }) }),
  column.accessor('fat', {
    header: `Fat, ${store.units.mass}`,
    cell: ({ getValue, row }) =>
      row.original.neutral ? h('span', { class: 'text-faded' }, 'neutral') : cellOf('fat', getValue()),
  }),
  column.accessor('lean', {
    header: `Lean, ${store.units.mass}`,
    cell: ({ getValue }) => cellOf('lean', getValue()),
    meta: { goes: 'max-lg:hidden' },
  }),
  column.accessor('sum', {
    header: 'Sum, mm',
    cell: ({ getValue }) => cellOf('sum', getValue()),
    meta: { goes: 'max-md:hidden' },
  }),
  column.accessor('lastDay', {
    id: 'last',
    header: 'Last measured',
    meta: { goes: 'max-[900px]:hidden' },
    cell: ({ getValue }) => (getValue() ? sayAgo(getValue() ?? '') : 'not yet'),
  }),
  column.accessor('nextOn', {
    id: 'next',
    header: 'Next',
    meta: { goes: 'max-sm:hidden' },
    cell: ({ getValue }) => {
      const day = getValue()
      if (!day) return ''
      return day <= today ? h('strong', `due ${sayDay(day)}`) : sayDay(day)
    },
  }),
  column.display({
    id: 'measure',
    header: '',
    cell: ({ row }) => (row.original.archived ? '' : h(MeasureCell, { client: row.original })),
    meta: { right: true },
  }),
])

const table = useVueTable({
  get data() {
    return lines.value
  },
  get columns() {
    return columns.value
  },
  state: {
    get sorting() {
      return sorting.value
    },
  },
  onSortingChange: (change) => {
    sorting.value = typeof change === 'function' ? change(sorting.value) : change
  },
  enableSortingRemoval: false,
  manualSorting: true,
  getCoreRowModel: getCoreRowModel(),
  getRowId: ({ id }) => id,
})

function sortWord(direction: false | 'asc' | 'desc'): 'none' | 'ascending' | 'descending' {
  return direction === false ? 'none' : direction === 'asc' ? 'ascending' : 'descending'
}

function openFirst() {
  const [first] = lines.value
  if (first) void router.push(`/clients/${first.id}`)
}
</script>

<template>
  <section class="px-4 py-5 sm:px-6">
    <div class="flex flex-wrap items-center gap-x-6 gap-y-3">
      <h1 class="text-3xl font-bold">Clients</h1>
      <form class="w-full max-w-72" role="search" @submit.prevent="openFirst">
        <input v-model="q" type="search" class="field" aria-label="Find by name" placeholder="Find by name" />
      </form>
      <label class="flex min-h-11 items-center gap-2">
        <input v-model="archived" type="checkbox" class="size-5 accent-ink" name="archived" />
        Archived
      </label>
      <NuxtLink to="/clients/new" class="press press-first ml-auto min-h-11"
        ><Plus class="size-4" />Add client</NuxtLink
      >
    </div>
    <div class="mt-2 flex flex-wrap items-center gap-x-5" role="group" aria-label="Show">
      <button
        v-for="one in FILTERS"
        :key="one.id"
        class="min-h-11 border-b-2 border-transparent aria-pressed:border-ink aria-pressed:stroke-bold"
        :aria-pressed="filter === one.id"
        @click="filter = one.id"
      >
        {{ one.name }}
      </button>
      <span class="ml-auto text-[15px] text-faded" data-total>{{ total }} shown</span>
    </div>
    <p v-if="problem" role="alert" class="mt-4 font-semibold text-alert">{{ problem }}</p>
    <KeptNotice class="mt-2" :since="keptSince" />
    <ScrollTable v-if="lines.length > 0" label="List of clients" class="mt-2">
      <table class="ruled">
        <thead>
          <tr>
            <th
              v-for="header in table.getFlatHeaders()"
              :key="header.id"
              scope="col"
              :class="[header.column.columnDef.meta?.goes, { right: header.column.columnDef.meta?.right }]"
              :aria-sort="header.column.getCanSort() ? sortWord(header.column.getIsSorted()) : undefined"
            >
              <span v-if="!header.column.getCanSort()" class="sr-only">Measure</span>
              <button
                v-else
                class="inline-flex min-h-9 items-center gap-1"
                @click="header.column.toggleSorting(header.column.getIsSorted() === 'asc')"
              >
                <FlexRender :render="header.column.columnDef.header" :props="header.getContext()" />
                <ArrowUp v-if="header.column.getIsSorted() === 'asc'" class="size-3.5" aria-hidden="true" />
                <ArrowDown v-if="header.column.getIsSorted() === 'desc'" class="size-3.5" aria-hidden="true" />
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in table.getRowModel().rows" :key="row.id" :data-client="row.original.name">
            <td
              v-for="cell in row.getVisibleCells()"
              :key="cell.id"
              class="whitespace-nowrap"
              :class="[cell.column.columnDef.meta?.goes, { right: cell.column.columnDef.meta?.right }]"
            >
              <FlexRender :render="cell.column.columnDef.cell" :props="cell.getContext()" />
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
    <p v-else-if="loaded" class="mt-6 text-faded">
      {{ q ? `Nobody here is called “${q}”.` : filter === 'all' ? 'No clients yet.' : 'Nobody at the moment.' }}
    </p>
    <button v-if="next !== null" class="press press-quiet mt-4" @click="load(next)">Show more</button>
  </section>
</template>
